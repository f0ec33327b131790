using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Strokes;

/// <summary>What a player sights along: from the cue ball to the first ball that it is to meet.</summary>
/// <param name="Distance">The cue ball's way until it meets that ball, round cushions too, m; infinite if it meets none.</param>
/// <param name="CutDegrees">Between its way as it meets the ball and the line of centres, not signed.</param>
/// <param name="AllowedDegrees">
/// By how much the aim is off the line that the ball is to take, for squirt and swerve (net) and for throw from side: judged, not seen.
/// </param>
/// <param name="Cushions">How many cushions the cue ball meets before that ball.</param>
public readonly record struct AimLine(double Distance, double CutDegrees, double AllowedDegrees, int Cushions)
{
    /// <summary>A ball nearer than this is sighted as at this distance, m.</summary>
    private const double Nearest = BallRadius;

    /// <summary>Of a stroke as it is meant; the simulator and the record are used up.</summary>
    public static AimLine Of(Layout layout, in Stroke stroke, Simulator simulator, ShotRecord record)
    {
        var strike = stroke.ToStrike();
        simulator.Place(layout.AsSpan());
        var seen = 0;
        simulator.Release([(0, strike.Launch(simulator.Conditions))], record, () =>
        {
            // Several may come at once, where balls touch.
            for (; seen < record.Events.Count; seen++)
                if (record.Events[seen] is { IsOfWhiteWithBall: true } or { Kind: ShotEventKind.Pot, Ball: 0 })
                    return true;
            return false;
        });
        var (start, last, distance, cushions) = (layout.White.At, layout.White.At, 0.0, 0);
        var aim = Angle.FromDegrees(stroke.AimDegrees);
        double? leaves = null;
        foreach (var e in record.Events)
        {
            var isBall = e.IsOfWhiteWithBall;
            if (!isBall && (e.Ball != 0 || e.Kind is not (ShotEventKind.Cushion or ShotEventKind.Jaw)))
                continue;
            var other = isBall ? layout.Balls[e.Ball + e.Other].At : default;
            var at = isBall && e.Ball != 0 ? LastOfWhite(record, e.Time)?.To ?? last : e.At;
            distance += at.DistanceTo(last);
            last = at;
            // Squirt and swerve show on the first leg; what comes after a cushion starts from there.
            leaves ??= start.DistanceTo(at) < 1e-6 ? 0 : Angle.Between(aim, (at - start).Direction).Degrees;
            if (!isBall)
            {
                cushions += e.Kind == ShotEventKind.Cushion ? 1 : 0;
                continue;
            }
            distance = Math.Max(Nearest, distance);
            var centres = (other - at).Direction;
            var came = LastOfWhite(record, e.Time)?.VelocityAtEnd is { SquaredLength: > 0 } v ? v.Direction : aim;
            var cut = Angle.Between(came, centres);
            var allowed = 0.0;
            if (stroke.SideTips != 0)
                allowed = ByThrow(record, e.Time, strike, simulator.Conditions, cut, distance) - leaves.Value;
            return new(distance, Math.Min(90, cut.Abs.Degrees), allowed, cushions);
        }
        return new(double.PositiveInfinity, 0, stroke.SideTips == 0 ? 0 : -(leaves ?? 0), cushions);
    }

    /// <summary>The white's last piece before a time; null if it has none.</summary>
    private static PathPiece? LastOfWhite(ShotRecord record, double time)
    {
        for (var i = record.Pieces.Count - 1; i >= 0; i--)
            if (record.Pieces[i].Ball == 0 && record.Pieces[i].Start < time)
                return record.Pieces[i];
        return null;
    }

    /// <summary>The turn of the aim that makes up for the part of the throw that comes from side, degrees.</summary>
    private static double ByThrow(ShotRecord record, double time, in Strike strike, Conditions conditions, Angle cut, double distance)
    {
        if (Arrival.Comes(record, time, strike, conditions) is not { } arrival)
            return 0;
        var thrown = arrival.Thrown(cut, conditions) - (arrival with { SideSpin = 0 }).Thrown(cut, conditions);
        // Thrown to the left, the ball is sent as it should be from a contact farther to the left.
        return Math.Atan(2 * BallRadius * cut.Unit.X * Math.Sin(thrown * Math.PI / 180) / distance) * 180 / Math.PI;
    }
}
