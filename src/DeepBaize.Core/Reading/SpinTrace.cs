using DeepBaize.Core.Physics;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Reading;

/// <summary>Where on its way the white's spin is told.</summary>
public enum SpinStage
{
    /// <summary>Just struck.</summary>
    Struck,

    /// <summary>Half-way to the first contact.</summary>
    UnderWay,

    /// <summary>As it meets the first ball.</summary>
    Contact,

    /// <summary>Just after that.</summary>
    After,

    /// <summary>As it comes to a cushion.</summary>
    Cushion,
}

/// <summary>The white's spin at one place of its way.</summary>
/// <param name="At">Centre of the white, m.</param>
/// <param name="DirectionDegrees">In which it goes, counter-clockwise from +x.</param>
/// <param name="Follow">Spin about the axis across its way, over that of a rolling ball: 1 rolls, 0 stun, negative screw.</param>
/// <param name="Side">Share of the side that it was given; with its sign as given, + right-hand.</param>
public readonly record struct SpinMark(SpinStage Stage, double Time, Vec2 At, double DirectionDegrees, double Follow, double Side);

/// <summary>How much of its spin the white has left at each stage of its way.</summary>
public static class SpinTrace
{
    /// <summary>No more marks than this: what comes after several cushions nobody plans by.</summary>
    private const int Most = 7;

    /// <summary>Slower than this a ball has no way to tell spin against, m/s.</summary>
    private const double Slowest = 0.02;

    /// <summary>Returns the marks of a stroke that was recorded, in order of time.</summary>
    public static IReadOnlyList<SpinMark> Of(ShotRecord record)
    {
        var pieces = record.Pieces.Where(p => p.Ball == 0).OrderBy(p => p.Start).ToList();
        if (pieces.Count == 0)
            return [];
        var marks = new List<SpinMark>();
        var given = pieces[0].Turning.Start.Z;
        var contact = record.Events.Find(e => e.IsOfWhiteWithBall);
        var end = contact == default ? pieces[^1].End : contact.Time;
        void Mark(SpinStage stage, double time, bool isBefore)
        {
            var piece = isBefore ? pieces.FindLast(p => p.Start < time && p.End >= time - 1e-9) : pieces.Find(p => p.End > time);
            if (piece == default || marks.Count >= Most)
                return;
            var elapsed = Math.Clamp(time - piece.Start, 0, piece.End - piece.Start);
            var velocity = new Vec2(piece.Vx + piece.Ax * elapsed, piece.Vy + piece.Ay * elapsed);
            var speed = velocity.Length;
            if (speed < Slowest)
                return;
            var (from, to) = piece.Turning;
            var share = elapsed / Math.Max(piece.End - piece.Start, 1e-12);
            double Part(double a, double b) => a + (b - a) * share;
            var (wx, wy, wz) = (Part(from.X, to.X), Part(from.Y, to.Y), Part(from.Z, to.Z));
            var follow = BallRadius * (wy * velocity.X - wx * velocity.Y) / (speed * speed);
            var side = given == 0 ? 0 : Math.Sign(given) * wz / given;
            marks.Add(new(stage, time, piece.At(piece.Start + elapsed), velocity.Direction.Degrees, follow, side));
        }
        Mark(SpinStage.Struck, 0, isBefore: false);
        Mark(SpinStage.UnderWay, end / 2, isBefore: true);
        if (contact != default)
        {
            Mark(SpinStage.Contact, contact.Time, isBefore: true);
            Mark(SpinStage.After, contact.Time, isBefore: false);
        }
        foreach (var e in record.Events.Where(e => e is { Ball: 0, Kind: ShotEventKind.Cushion }))
            Mark(SpinStage.Cushion, e.Time, isBefore: true);
        return [.. marks.OrderBy(m => m.Time)];
    }
}
