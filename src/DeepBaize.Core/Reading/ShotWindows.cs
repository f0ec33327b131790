using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Reading;

/// <summary>Settings of one knob with which a stroke still does what is asked of it, everything else as set.</summary>
/// <param name="From">Lowest setting: steps of pace, tips, or degrees.</param>
/// <param name="To">Highest setting, in the same unit.</param>
/// <param name="IsToLeast">Whether no lower end was found: it reaches the lowest setting, or farther than anybody errs.</param>
/// <param name="IsToMost">Whether no upper end was found: it reaches the highest setting, or farther than anybody errs.</param>
public sealed record KnobRange(double From, double To, bool IsToLeast, bool IsToMost);

/// <summary>What is asked: a pot, and perhaps what the white is to do after it.</summary>
/// <param name="Stroke">The stroke as it is played.</param>
/// <param name="KeepsAim">Whether the aim stays when another knob is turned; else it follows, so that the ball still goes.</param>
/// <param name="Butt">Whose cue lies as it must with each setting; null where the elevation is set by hand.</param>
public sealed record WindowQuestion(Layout Layout, Stroke Stroke, Cut Cut, TableShape Shape, Goal? Goal, bool KeepsAim, Player? Butt);

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
    private sealed record Search(double Set, double Limit, double Step, double Fine, bool IsAim, Func<double, Stroke> Turned);

    /// <summary>Returns the ranges of a stroke.</summary>
    /// <param name="workers">Each end is looked for by itself.</param>
    public static ShotWindows Of(WindowQuestion question, Workers workers)
    {
        var stroke = question.Stroke;
        if (!new Trial(question).IsMet(stroke))
            return new(false, null, null, null, null);
        static double MostTips(double other) => Math.Sqrt(Math.Max(0, Tip.Limit * Tip.Limit - other * other)) - 1e-6;
        static Search[] Both(
            double set,
            double least,
            double most,
            double step,
            double fine,
            Func<double, Stroke> turned,
            bool isAim = false
        ) => [new(set, least, -step, fine, isAim, turned), new(set, most, step, fine, isAim, turned)];
        static Search[] Tips(double set, double most, Func<double, Stroke> turned) =>
            Both(set, Math.Max(-most, set - FarthestTip), Math.Min(most, set + FarthestTip), TipStep, Accuracy, turned);
        var aim = stroke.AimDegrees;
        Search[] searches =
        [
            .. Both(
                stroke.Pace,
                Math.Max(Strokes.Pace.Slowest, stroke.Pace - FarthestPace),
                Math.Min(Strokes.Pace.Hardest, stroke.Pace + FarthestPace),
                PaceStep,
                Accuracy,
                v => stroke with { Pace = v }
            ),
            .. Tips(stroke.HeightTips, MostTips(stroke.SideTips), v => stroke with { HeightTips = v }),
            .. Tips(stroke.SideTips, MostTips(stroke.HeightTips), v => stroke with { SideTips = v }),
            .. Both(aim, aim - MostAim, aim + MostAim, AimStep, AimAccuracy, v => stroke with { AimDegrees = v }, isAim: true),
        ];
        var ends = workers.InParallel(searches.Length, i => EndOf(searches[i], new(question)));
        KnobRange Range(int knob) => new(ends[2 * knob].At, ends[2 * knob + 1].At, ends[2 * knob].IsLimit, ends[2 * knob + 1].IsLimit);
        return new(true, Range(0), Range(1), Range(2), Range(3));
    }

    /// <summary>The last setting, step by step from the one that does it towards the limit, that still does.</summary>
    private static (double At, bool IsLimit) EndOf(Search search, Trial trial)
    {
        var (limit, step, met) = (search.Limit, search.Step, search.Set);
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

    /// <summary>Plays variants of the stroke. One instance serves one thread.</summary>
    private sealed class Trial(WindowQuestion question)
    {
        private readonly Simulator _simulator = new(question.Shape);
        private readonly ShotRecord _record = new();
        private readonly PotTrial _pot = new(question.Layout, question.Cut, question.Shape);
        private double? _near;

        private int Target => question.Cut.Pot.Slot;

        public bool IsMet(in Stroke stroke) => Does(stroke, IsLost);

        public bool IsMetAimedAnew(Stroke stroke)
        {
            stroke = WithButt(stroke);
            if (question.KeepsAim)
                return IsMet(stroke);
            return PotAim.Find(_pot, question.Cut, stroke) is { } aim && IsMet(stroke with { AimDegrees = aim });
        }

        /// <summary>
        /// A quick look: the aim found roughly, and the stroke played only until the white lies still. "No" is no answer.
        /// </summary>
        public bool IsSoonMet(Stroke stroke)
        {
            stroke = WithButt(stroke);
            if (!question.KeepsAim)
            {
                _near = PotAim.Find(_pot, question.Cut, stroke, _near ?? stroke.AimDegrees, PotAim.Roughly);
                if (_near is not { } aim)
                    return false;
                stroke = stroke with { AimDegrees = aim };
            }
            return Does(stroke, () => IsLost() || IsDone());
        }

        /// <summary>As the page does: over what is in the way on the line of the cut.</summary>
        private Stroke WithButt(in Stroke stroke)
        {
            if (question.Butt is not { } player)
                return stroke;
            var line = question.KeepsAim ? stroke : stroke with { AimDegrees = question.Cut.AimDegrees };
            return stroke with { ElevationDegrees = Reach.ButtFor(question.Layout, line, player) };
        }

        private bool Does(in Stroke stroke, Func<bool> until)
        {
            _simulator.Place(question.Layout.AsSpan());
            _simulator.Release([(0, stroke.ToStrike().Launch(_simulator.Conditions))], _record, until);
            return _simulator.PocketOf(Target) == question.Cut.Pocket
                && _simulator.IsOnTable(0)
                && (question.Goal?.IsMet(_record, _simulator, question.Layout) ?? true);
        }

        /// <summary>Whether the ball, or the white, has gone where it must not.</summary>
        private bool IsLost() =>
            !_simulator.IsOnTable(0) || (!_simulator.IsOnTable(Target) && _simulator.PocketOf(Target) != question.Cut.Pocket);

        /// <summary>Whether the ball has gone in and the white has come to rest; it might be met once more by another.</summary>
        private bool IsDone() => _record.Events[^1] is { Kind: ShotEventKind.Stop, Ball: 0 } && !_simulator.IsOnTable(Target);
    }
}
