using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Reading;

/// <summary>The white's way after its first contact, as players compare it.</summary>
/// <param name="Length">Of the way, m.</param>
/// <param name="Stop">Where it stops; null if it goes in or off the table.</param>
/// <param name="Off">The first cushion that it comes off.</param>
/// <param name="OffDegrees">Angle between its way off that cushion and straight away from it.</param>
public sealed record WhiteWay(double Length, Vec2? Stop, Cushion? Off, double OffDegrees)
{
    /// <summary>Reads the way off a stroke that was played. Without a contact it is the whole way.</summary>
    public static WhiteWay Of(ShotRecord record, Simulator after)
    {
        var met = record.Events.Find(e => e.IsOfWhiteWithBall);
        var from = met.Kind == ShotEventKind.Ball ? met.Time : 0;
        var length = 0.0;
        foreach (var piece in record.Pieces)
            if (piece.Ball == 0 && piece.Start >= from - 1e-9)
                length += LengthOf(piece);
        var bounce = record.Events.FindIndex(e => e.Kind == ShotEventKind.Cushion && e.Ball == 0 && e.Time > from);
        Cushion? cushion = null;
        var degrees = 0.0;
        if (bounce >= 0)
        {
            var e = record.Events[bounce];
            cushion = Cushions.Nearest(e.At);
            var away = record.Pieces.Find(p => p.Ball == 0 && p.Start >= e.Time - 1e-9);
            var (straight, aside) = cushion.Value.IsEnd() ? (away.Vx, away.Vy) : (away.Vy, away.Vx);
            degrees = Math.Atan2(Math.Abs(aside), Math.Abs(straight)) * 180 / Math.PI;
        }
        return new(length, after.IsOnTable(0) ? after.At(0) : null, cushion, degrees);
    }

    /// <summary>Of a parabola that is nearly straight: by chords, which are short of it by less than a thousandth.</summary>
    private static double LengthOf(in PathPiece piece)
    {
        const int chords = 8;
        var (length, from) = (0.0, piece.From);
        for (var i = 1; i <= chords; i++)
        {
            var to = piece.At(piece.Start + (piece.End - piece.Start) * i / chords);
            length += from.DistanceTo(to);
            from = to;
        }
        return length;
    }
}

/// <summary>What changing a stroke did to where the white goes.</summary>
/// <param name="Knob">The one thing that was changed; null if it was several, or none.</param>
/// <param name="By">By how much, in that knob's unit.</param>
/// <param name="Longer">By how much the white's way after the contact is longer, m.</param>
/// <param name="Moved">How far apart the two places are where it stops, m; null if it does not stop on the table both times.</param>
/// <param name="Off">The cushion that the white comes off first, before and after the change alike; null if there is none.</param>
/// <param name="WiderDegrees">By how much farther from straight away it comes off that cushion.</param>
public sealed record StrokeChange(StrokeKnob? Knob, double By, double Longer, double? Moved, Cushion? Off, double WiderDegrees)
{
    /// <summary>Changes smaller than this are none, in any knob's unit.</summary>
    private const double Least = 0.004;

    /// <summary>Compares two strokes of one pot, or of none.</summary>
    /// <param name="isPot">Whether the aim follows from the pot, so that it is no knob.</param>
    public static StrokeChange Of((Stroke Stroke, WhiteWay Way) before, (Stroke Stroke, WhiteWay Way) after, bool isPot)
    {
        var (a, b) = (before.Stroke, after.Stroke);
        (StrokeKnob Knob, double By)[] turned =
        [
            (StrokeKnob.Height, b.HeightTips - a.HeightTips),
            (StrokeKnob.Side, b.SideTips - a.SideTips),
            (StrokeKnob.Pace, b.Pace - a.Pace),
            (StrokeKnob.Elevation, b.ElevationDegrees - a.ElevationDegrees),
            (StrokeKnob.Aim, isPot ? 0 : Math.IEEERemainder(b.AimDegrees - a.AimDegrees, 360)),
        ];
        var changed = turned.Where(t => Math.Abs(t.By) > Least).ToList();
        var (one, other) = (before.Way, after.Way);
        var cushion = one.Off == other.Off ? one.Off : null;
        return new(
            Knob: changed.Count == 1 ? changed[0].Knob : null,
            By: changed.Count == 1 ? changed[0].By : 0,
            Longer: other.Length - one.Length,
            Moved: one.Stop is { } from && other.Stop is { } to ? from.DistanceTo(to) : null,
            Off: cushion,
            WiderDegrees: cushion is null ? 0 : other.OffDegrees - one.OffDegrees
        );
    }
}
