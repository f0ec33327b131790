using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Advice.Escape;

/// <summary>A stroke that hits a ball on.</summary>
/// <param name="Width">Width of the window of aim that it was found in, degrees.</param>
internal sealed record EscapeTrial(Stroke Stroke, EscapeHit Hit, double Width);

/// <summary>A trial with its mean value over the errors that select.</summary>
internal sealed record ValuedEscape(EscapeTrial Trial, double Value);

/// <summary>Second and third stage of <see cref="EscapeSearch"/>: screening of the widest windows with errors, and refinement.</summary>
internal sealed class EscapeTrials(SearchContext context, Situation from, AimWindows windows)
{
    /// <summary>Number of samples of a screened trial.</summary>
    public const int ScreenStrokes = 32;

    private const int RefineStrokes = 48;

    /// <summary>The stream of errors that screens.</summary>
    public static readonly ErrorStream ScreeningErrors = ErrorStream.Named("escapes: sift");

    private static readonly ErrorStream RefiningErrors = ErrorStream.Named("escapes: refine");

    /// <summary>Samples the middle of each of the widest windows; returns the distinct trials, best first.</summary>
    public List<ValuedEscape> Screen(List<AimWindow> found, int most)
    {
        var best = AimWindows.Widest(found, most);
        var valued = context.InParallel(best.Count, (workspace, i) =>
            Try(workspace, windows.StrokeOf(best[i].Column, best[i].Pace, best[i].Middle), best[i].Width) is { } trial
                ? new ValuedEscape(trial, Mean(workspace, trial, ScreeningErrors, ScreenStrokes))
                : null
        );
        return Distinct(valued.OfType<ValuedEscape>());
    }

    /// <summary>Changes aim, height, side and pace for the better; the ball and the cushions stay.</summary>
    public ValuedEscape Improve(Workspace workspace, ValuedEscape seed)
    {
        var start = seed with { Value = Mean(workspace, seed.Trial, RefiningErrors, RefineStrokes) };
        return Refinement.Better<ValuedEscape>(
            start,
            [new(AimDegrees: seed.Trial.Width / 4), new(Speed: 0.13), new(Height: 0.3), new(Side: 0.3)],
            halvings: 2,
            (now, change) =>
                change.Of(now.Trial.Stroke, SafetyStrokes.Softest, SafetyStrokes.Hardest) is { } stroke
                && Try(workspace, stroke, seed.Trial.Width) is { } trial
                && trial.Hit.IsAs(seed.Trial.Hit)
                    ? new(trial, Mean(workspace, trial, RefiningErrors, RefineStrokes))
                    : null,
            (a, b) => a.Value > b.Value,
            from.Layout.Mirror
        );
    }

    /// <summary>Returns the trials that differ, best first.</summary>
    public List<ValuedEscape> Distinct(IEnumerable<ValuedEscape> valued) =>
        Distinctness.Distinct(valued.OrderByDescending(v => v.Value), IsSame);

    private EscapeTrial? Try(Workspace workspace, in Stroke stroke, double width) =>
        windows.FirstHit(workspace, stroke) is { } hit ? new(stroke, hit, width) : null;

    private double Mean(Workspace workspace, EscapeTrial trial, ErrorStream stream, int strokes)
    {
        var scatter = workspace.ScatterOf(from.Layout, trial.Stroke);
        return stream.Set(strokes).Average(draws => ValueOf(workspace, trial, scatter.Error(draws)));
    }

    /// <summary>Value of one stroke with an error, in the measure of the answer.</summary>
    public double ValueOf(Workspace workspace, EscapeTrial trial, in StrokeError error)
    {
        var played = workspace.Play(from, trial.Stroke, error, NamedFor(trial.Hit));
        return workspace.ValueOf(played.Leaves);
    }

    /// <summary>The ball that the player names: only a colour after a red, or a free ball, has to be named.</summary>
    public Ball? NamedFor(EscapeHit hit) => from.Frame.On == BallOn.Colour || from.Frame.FreeBall ? from.Layout.Balls[hit.Slot].Ball : null;

    /// <summary>Whether two go to the same ball, or to reds, off the same cushions, by the same side or worth about the same.</summary>
    private bool IsSame(ValuedEscape a, ValuedEscape b)
    {
        const double levelPoints = 0.3,
            sameSide = 0.3;
        var (one, other) = (from.Layout.Balls[a.Trial.Hit.Slot].Ball, from.Layout.Balls[b.Trial.Hit.Slot].Ball);
        return a.Trial.Hit.Key == b.Trial.Hit.Key
            && (one == other || (one.IsRed && other.IsRed))
            && (
                Math.Abs(a.Trial.Stroke.SideTips - b.Trial.Stroke.SideTips) < sameSide
                || Math.Abs(a.Value - b.Value) < levelPoints * context.Objective.Point
            );
    }
}
