using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Reading;

/// <summary>Settings of one knob with which a stroke still does what is asked of it, everything else as set.</summary>
/// <param name="From">Lowest setting: steps of pace, tips, or degrees.</param>
/// <param name="To">Highest setting, in the same unit.</param>
/// <param name="IsToLeast">Whether no lower end was found: it reaches the lowest setting, or farther than anybody errs.</param>
/// <param name="IsToMost">Whether no upper end was found: it reaches the highest setting, or farther than anybody errs.</param>
public sealed record KnobRange(double From, double To, bool IsToLeast, bool IsToMost);

/// <summary>
/// How far each knob of a stroke may be turned, by itself, until the pot, or what the white is to do, is lost. Without errors of the
/// player: what is needed, not what is likely.
/// </summary>
/// <param name="IsMet">Whether the stroke does it as set; if not, there are no ranges.</param>
/// <param name="Pace">Steps of pace.</param>
/// <param name="Height">Tips.</param>
/// <param name="Side">Tips, right is positive.</param>
/// <param name="Aim">Degrees, as the aim is told.</param>
public sealed record ShotWindows(bool IsMet, KnobRange? Pace, KnobRange? Height, KnobRange? Side, KnobRange? Aim)
{
    /// <summary>Steps in which settings are tried: a gap narrower than this may be overlooked. Steps of pace, tips.</summary>
    private const double PaceStep = 0.1,
        TipStep = 0.05;

    /// <summary>Farthest from the setting that an end is looked for: nobody errs by more. Steps of pace, tips.</summary>
    private const double FarthestPace = 2,
        FarthestTip = 0.6;

    /// <summary>Ends are found to this, in steps of pace or tips.</summary>
    public const double Accuracy = 4e-3;

    /// <summary>Largest error of an end of the range of aims, degrees.</summary>
    public const double AimAccuracy = 1e-4;

    /// <summary>Step with which aims are tried, and the farthest that is looked, degrees.</summary>
    private const double AimStep = 0.05,
        MostAim = 3;

    /// <summary>One end of a knob's range: from the setting towards a limit in steps, the end to a bound of its own.</summary>
    private sealed record Search(StrokeKnob Knob, Stroke Stroke, double Limit, double Step)
    {
        public bool IsAim => Knob == StrokeKnob.Aim;

        public double Fine => IsAim ? AimAccuracy : Accuracy;

        public Stroke Turned(double setting) => Knob.Turned(Stroke, setting);
    }

    private static readonly (StrokeKnob Knob, double Farthest, double Step)[] Searched =
    [
        (StrokeKnob.Pace, FarthestPace, PaceStep),
        (StrokeKnob.Height, FarthestTip, TipStep),
        (StrokeKnob.Side, FarthestTip, TipStep),
        (StrokeKnob.Aim, MostAim, AimStep),
    ];

    /// <summary>Returns the ranges of a stroke.</summary>
    /// <param name="workers">Each end is looked for by itself.</param>
    public static ShotWindows Of(VariantQuestion question, Workers workers)
    {
        var stroke = question.Stroke;
        if (!new Trial(question).IsMet(stroke))
            return new(false, null, null, null, null);
        var searches = Searched
            .SelectMany(k =>
            {
                var (set, (least, most)) = (k.Knob.Of(stroke), k.Knob.Limits(stroke));
                return (Search[])
                    [
                        new(k.Knob, stroke, Math.Max(least, set - k.Farthest), -k.Step),
                        new(k.Knob, stroke, Math.Min(most, set + k.Farthest), k.Step),
                    ];
            })
            .ToList();
        var ends = workers.InParallel(searches.Count, i => EndOf(searches[i], new(question)));
        KnobRange Range(int knob) => new(ends[2 * knob].At, ends[2 * knob + 1].At, ends[2 * knob].IsLimit, ends[2 * knob + 1].IsLimit);
        return new(true, Range(0), Range(1), Range(2), Range(3));
    }

    /// <summary>The last setting, step by step from the one that does it towards the limit, that still does.</summary>
    private static (double At, bool IsLimit) EndOf(Search search, Trial trial)
    {
        var (limit, step, met) = (search.Limit, search.Step, search.Knob.Of(search.Stroke));
        bool IsMet(double at) => search.IsAim ? trial.IsMet(search.Turned(at)) : trial.IsMetAimedAnew(search.Turned(at));
        while (true)
        {
            var next = step > 0 ? Math.Min(met + step, limit) : Math.Max(met + step, limit);
            if (Math.Abs(next - met) < 1e-9)
                return (met, true);
            if ((search.IsAim || !trial.IsSoonMet(search.Turned(next))) && !IsMet(next))
            {
                var not = next;
                while (Math.Abs(met - not) > search.Fine)
                {
                    var middle = (met + not) / 2;
                    (met, not) = IsMet(middle) ? (middle, not) : (met, middle);
                }
                return (met, false);
            }
            met = next;
        }
    }

    /// <summary>Tells whether variants of the stroke do what is asked. One instance serves one thread.</summary>
    private sealed class Trial(VariantQuestion question)
    {
        private readonly StrokeVariants _variants = new(question);

        /// <summary>Of a stroke without a pot and a goal: it is to meet the ball that it meets as set.</summary>
        private readonly int _first = question is { Cut: null, Goal: null } ? StrokeVariants.FirstOf(question) : -1;

        private int Target => question.Cut?.Pot.Slot ?? -1;

        public bool IsMet(in Stroke stroke) => Does(stroke, IsLost);

        public bool IsMetAimedAnew(Stroke stroke) => _variants.AimedAnew(stroke) is { } aimed && IsMet(aimed);

        /// <summary>
        /// A quick look: the aim found roughly, and the stroke played only until the white lies still. "No" is no answer.
        /// </summary>
        public bool IsSoonMet(Stroke stroke) => _variants.RoughlyAimedAnew(stroke) is { } aimed && Does(aimed, () => IsLost() || IsDone());

        private bool Does(in Stroke stroke, Func<bool> until)
        {
            var (after, record) = _variants.Play(stroke, until);
            return (question.Cut is not { } cut || after.PocketOf(Target) == cut.Pocket)
                && after.IsOnTable(0)
                && (question.Goal?.IsMet(record, after, question.Layout) ?? (_first < 0 || Contacts.FirstSlot(record) == _first));
        }

        /// <summary>Whether the ball, or the white, has gone where it must not.</summary>
        private bool IsLost() =>
            !_variants.After.IsOnTable(0)
            || (question.Cut is { } cut && !_variants.After.IsOnTable(Target) && _variants.After.PocketOf(Target) != cut.Pocket);

        /// <summary>Whether the ball has gone in and the white has come to rest; it might be met once more by another.</summary>
        private bool IsDone() =>
            _variants.Record.Events[^1] is { Kind: ShotEventKind.Stop, Ball: 0 }
            && question.Cut is not null
            && !_variants.After.IsOnTable(Target);
    }
}
