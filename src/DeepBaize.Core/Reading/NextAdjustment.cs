using DeepBaize.Core.Strokes;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Reading;

/// <summary>One error of the stroke that would put the white where it was seen, everything else as it was meant.</summary>
/// <param name="By">How far the knob was off: steps of pace, tips, or degrees; what to change next time is the opposite.</param>
/// <param name="Off">How far from where the white was seen it still stops then, m.</param>
public sealed record KnobError(StrokeKnob Knob, double By, double Off);

/// <summary>
/// From where the white stopped: which single error of pace, height, side or aim explains it, by playing the stroke with each. How likely
/// each is for a player does not come into it.
/// </summary>
/// <param name="Off">From where the stroke as meant stops to where the white was seen, m; null if as meant it does not stop.</param>
/// <param name="Errors">The best explanation first; empty if it is near enough, or no single error comes near.</param>
public sealed record NextAdjustment(double? Off, IReadOnlyList<KnobError> Errors)
{
    /// <summary>Nearer than this there is nothing to change, m.</summary>
    public const double NearEnough = 0.06;

    /// <summary>Largest share of the distance, and largest distance, m, that an error may leave and still explain what was seen.</summary>
    private const double ShareLeft = 0.4,
        MostLeft = 0.15;

    /// <summary>Errors that are looked for, either way, and the steps in which they are.</summary>
    private static readonly (StrokeKnob Knob, double Most, double Step)[] Looked =
    [
        (StrokeKnob.Pace, 1.5, 0.1),
        (StrokeKnob.Height, 0.8, 0.05),
        (StrokeKnob.Side, 0.6, 0.05),
        (StrokeKnob.Aim, 1, 0.05),
    ];

    /// <summary>Returns what explains where the white was seen to stop, m.</summary>
    public static NextAdjustment Of(VariantQuestion question, Vec2 seen, Workers workers)
    {
        var meant = OffOf(new(question), question.Stroke, seen);
        if (meant is { } near && near < NearEnough)
            return new(meant, []);
        var errors = workers.InParallel(Looked.Length, i => Explain(question, Looked[i], seen));
        return new(
            meant,
            [
                .. errors
                    .OfType<KnobError>()
                    .Where(e => meant is not { } off || e.Off < Math.Clamp(ShareLeft * off, NearEnough, MostLeft))
                    .OrderBy(e => e.Off),
            ]
        );
    }

    /// <summary>What is done by mistake is done with the aim and the butt as they are.</summary>
    private static KnobError? Explain(VariantQuestion question, (StrokeKnob Knob, double Most, double Step) look, Vec2 seen)
    {
        var (variants, stroke, set) = (new StrokeVariants(question), question.Stroke, look.Knob.Of(question.Stroke));
        double Off(double by) =>
            look.Knob.Allows(stroke, set + by)
                ? OffOf(variants, look.Knob.Turned(stroke, set + by), seen) ?? double.PositiveInfinity
                : double.PositiveInfinity;
        var count = (int)Math.Round(look.Most / look.Step);
        var best = Enumerable.Range(-count, 2 * count + 1).Select(i => i * look.Step).MinBy(Off);
        for (var step = look.Step / 2; step > look.Step / 20; step /= 2)
            best = new[] { best - step, best, best + step }.MinBy(Off);
        var left = Off(best);
        return double.IsFinite(left) && Math.Abs(best) > look.Step / 4 ? new(look.Knob, best, left) : null;
    }

    private static double? OffOf(StrokeVariants variants, in Stroke stroke, Vec2 seen)
    {
        var (after, _) = variants.Play(stroke);
        return after.IsOnTable(0) ? after.At(0).DistanceTo(seen) : null;
    }
}
