using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Advice.Escape;

/// <summary>What the next attempt should change.</summary>
/// <param name="Passed">How far to the left of the ball's middle, as the white came to it, it passed or hit in truth, m.</param>
/// <param name="Expected">Value that the simulation gives for the aim that was played, m.</param>
/// <param name="AimDegrees">The next aim.</param>
/// <param name="Along">
/// How far along the first cushion the white's place moves with it, m; towards the top or the green's side is positive. 0 without a
/// cushion.
/// </param>
public sealed record CorrectedAim(double Passed, double Expected, double AimDegrees, double Along);

/// <summary>
/// An escape was tried and missed: where the white really passed tells how this table's cushions differ, and the next aim follows by trial.
/// </summary>
public static class TryAndCorrect
{
    private const double Probe = 0.1,
        MostDegrees = 12;

    /// <param name="stroke">As played.</param>
    /// <param name="slot">Of the ball that was meant.</param>
    /// <param name="passed">How far to the left of the ball's middle the white passed, as it came; m.</param>
    /// <exception cref="InputException">The white does not come by that ball with this stroke, or a figure out of range.</exception>
    public static CorrectedAim Next(Layout layout, Stroke stroke, int slot, double passed, TableShape shape)
    {
        if (!(Math.Abs(passed) <= 1))
            throw new InputException("passed", $"{passed} m is out of range.", "-1 to 1 m");
        if (slot < 1 || slot >= layout.Balls.Count)
            throw new InputException("ball", "There is no such ball.", "an object ball on the table");
        var expected = PassOf(layout, stroke, slot, shape)
            ?? throw new InputException(
                "content.stroke",
                "With this stroke the white does not come by that ball.",
                "a stroke that comes within half a metre of it"
            );
        // The table carried the white so far from where it was expected; aimed so that it would be expected as far on the other side, it
        // hits.
        var left = PassOf(layout, stroke with { AimDegrees = stroke.AimDegrees + Probe }, slot, shape);
        var right = PassOf(layout, stroke with { AimDegrees = stroke.AimDegrees - Probe }, slot, shape);
        if (left is not { } l || right is not { } r || Math.Abs(l.Pass - r.Pass) < 1e-6)
            throw new InputException(
                "content.stroke",
                "A small change of the aim sends the white elsewhere: it cannot be told how to correct it.",
                "a stroke whose way does not hang on a hair"
            );
        var perDegree = (l.Pass - r.Pass) / (2 * Probe);
        var turn = Math.Clamp((0 - passed) / perDegree, -MostDegrees, MostDegrees);
        var along =
            expected.Contact is { } c
            && PassOf(layout, stroke with { AimDegrees = stroke.AimDegrees + turn }, slot, shape) is { Contact: { } next }
                ? AlongCushion(c, next)
                : 0;
        return new(passed, expected.Pass, stroke.AimDegrees + turn, along);
    }

    /// <summary>
    /// The white met the first cushion so far beside where it was expected to, by the stroke itself: the next aim moves as much the other
    /// way.
    /// </summary>
    /// <param name="along">Of the true place from the expected one, towards the top or the green's side positive, m.</param>
    /// <exception cref="InputException">The stroke meets no cushion, or a figure out of range.</exception>
    public static CorrectedAim NextByCushion(Layout layout, Stroke stroke, double along, TableShape shape)
    {
        if (!(Math.Abs(along) <= 1))
            throw new InputException("along", $"{along} m is out of range.", "-1 to 1 m");
        var (simulator, record) = (new Simulator(shape), new ShotRecord());
        stroke.Play(simulator, layout, record);
        if (
            record.Events.FirstOrDefault(e => e.Kind is ShotEventKind.Cushion or ShotEventKind.Ball && (e.Ball == 0 || e.Other == 0))
            is not { Kind: ShotEventKind.Cushion } c
        )
            throw new InputException("content.stroke", "With this stroke the white meets no cushion first.", "a stroke off a cushion");
        return new(0, 0, stroke.AimDegrees + AimChange(layout.White.At, c.At, -along).Degrees, -along);
    }

    /// <summary>By how much the aim turns for the white to meet the first cushion so far along it from where it did, m.</summary>
    public static Angle AimChange(Vec2 white, Vec2 contact, double along)
    {
        var moved = contact + (Cushions.Nearest(contact).IsEnd() ? new Vec2(0, along) : new Vec2(along, 0));
        return Angle.Between((contact - white).Direction, (moved - white).Direction);
    }

    private static double AlongCushion(Vec2 from, Vec2 to)
    {
        var cushion = Cushions.Nearest(from);
        return cushion.Along(to) - cushion.Along(from);
    }

    /// <summary>
    /// How far to the left of the ball's middle the white passes it, and where it met its first cushion. The ball itself is taken away, so
    /// that a hit can be told as well.
    /// </summary>
    private static (double Pass, Vec2? Contact)? PassOf(Layout layout, Stroke stroke, int slot, TableShape shape)
    {
        const double near = 0.5;
        var (simulator, record) = (new Simulator(shape), new ShotRecord());
        simulator.Place([.. layout.Balls.Where((_, i) => i != slot)]);
        simulator.Play(stroke.ToStrike(), record);
        var target = layout.Balls[slot];
        (double Pass, double Gap)? best = null;
        foreach (var piece in record.Pieces)
        {
            if (piece.Ball != 0)
                continue;
            const int parts = 24;
            for (var i = 0; i < parts; i++)
            {
                var way = new Segment(
                    piece.At(piece.Start + (piece.End - piece.Start) * i / parts),
                    piece.At(piece.Start + (piece.End - piece.Start) * (i + 1) / parts)
                );
                var gap = way.DistanceTo(target.At);
                if (way.Length < 1e-9 || gap >= (best?.Gap ?? near))
                    continue;
                // Left of the ball's middle is the white's centre to the left of the line through the ball along its way.
                best = ((way.To - way.From).Cross(way.From - target.At) / way.Length, gap);
            }
        }
        Vec2? contact = record.Events.FirstOrDefault(e => e.Ball == 0 && e.Kind == ShotEventKind.Cushion)
            is { Kind: ShotEventKind.Cushion } c
            ? c.At
            : null;
        return best is { } b ? (b.Pass, contact) : null;
    }
}
