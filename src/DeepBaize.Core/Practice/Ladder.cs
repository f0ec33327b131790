using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Practice;

/// <summary>Within which settings of one knob, all else as it is meant, a stroke without an error meets a step's rule.</summary>
/// <param name="From">Tips for height, paces for pace.</param>
public readonly record struct RungWindow(double From, double To)
{
    /// <summary>Middle of the window.</summary>
    public double Middle => (From + To) / 2;

    /// <summary>Width of the window.</summary>
    public double Width => To - From;
}

/// <summary>Works out the rungs of a ladder: one stroke, of which only the tip's height or the pace is changed.</summary>
public static class Ladder
{
    /// <summary>A window narrower than this nobody hits, and it is not looked for: tips, or paces.</summary>
    private const double HeightStep = 0.02,
        PaceStep = 0.04;

    /// <summary>Edges are found to this.</summary>
    private const double Fine = 1e-4;

    /// <param name="knob">height or pace.</param>
    /// <returns>The window that holds what is meant, or else the widest; null if no setting does it.</returns>
    /// <exception cref="InputException">The step cannot be played.</exception>
    public static RungWindow? WindowOf(Step step, string knob, Player player, TableShape shape)
    {
        var trial = new Trial(step, knob, player, shape);
        var meant = knob == "height" ? step.Stroke.Height : step.Stroke.Pace;
        if (trial.IsMet(meant))
            return new(trial.LastFrom(meant, -1), trial.LastFrom(meant, 1));
        var windows = WindowsOf(trial);
        return windows.Count == 0 ? null : windows.MaxBy(w => w.Width);
    }

    /// <summary>Every window, from the lowest setting up.</summary>
    private static List<RungWindow> WindowsOf(Trial trial)
    {
        var windows = new List<RungWindow>();
        for (var at = trial.Least; at <= trial.Most; at += trial.Step)
        {
            if (!trial.IsMet(at))
                continue;
            var window = new RungWindow(trial.LastFrom(at, -1), trial.LastFrom(at, 1));
            windows.Add(window);
            at = Math.Max(at, window.To);
        }
        return windows;
    }

    /// <summary>The stroke with its knob set.</summary>
    public static MeantStroke With(MeantStroke stroke, string knob, double value) =>
        knob == "height" ? stroke with { Height = value } : stroke with { Pace = value };

    /// <summary>Plays the step with one knob set, and no error.</summary>
    private sealed class Trial(Step step, string knob, Player player, TableShape shape)
    {
        private readonly Layout _layout = step.LayoutOn(shape);
        private readonly Simulator _simulator = new(shape);
        private readonly ShotRecord _record = new();

        public double Step { get; } = knob == "height" ? HeightStep : PaceStep;

        public double Most { get; } =
            knob == "height" ? Math.Sqrt(Math.Max(0, Tip.Limit * Tip.Limit - step.Stroke.Side * step.Stroke.Side)) - 1e-6 : Pace.Hardest;

        public double Least => knob == "height" ? -Most : Pace.Slowest;

        public bool IsMet(double value)
        {
            var stroke = step.StrokeOn(_layout, shape, player, With(step.Stroke, knob, value));
            stroke.Play(_simulator, _layout, _record);
            return step.IsDone(Observation.Of(_record, _simulator, _layout, step.PotIn(_layout))) == true;
        }

        /// <summary>From a setting that does it, the last one in a direction that still does.</summary>
        public double LastFrom(double met, int direction)
        {
            while (true)
            {
                var next = Math.Clamp(met + direction * Step, Least, Most);
                if (next == met)
                    return met;
                if (!IsMet(next))
                    return Edge(next, met);
                met = next;
            }
        }

        private double Edge(double not, double met)
        {
            while (Math.Abs(met - not) > Fine)
            {
                var middle = (met + not) / 2;
                if (IsMet(middle))
                    met = middle;
                else
                    not = middle;
            }
            return met;
        }
    }
}
