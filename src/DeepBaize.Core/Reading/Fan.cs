using System.Globalization;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Reading;

/// <summary>Which of a stroke's knobs a fan turns.</summary>
public enum FanKind
{
    /// <summary>Screw, stun and follow.</summary>
    Routes,

    /// <summary>Softer and harder.</summary>
    Paces,

    /// <summary>Lower and higher on the white.</summary>
    Heights,

    /// <summary>With more and less side.</summary>
    Sides,

    /// <summary>With the butt lower and higher; by itself level against dug down.</summary>
    Butts,

    /// <summary>Aimed to the left and to the right.</summary>
    Aims,

    /// <summary>Half a degree of aim, half a step of pace and a touch of side, each either way and by itself.</summary>
    Errors,
}

/// <summary>Settings of a knob: from one to another in equal steps.</summary>
/// <param name="From">Steps of pace, tips, or degrees; of the aim against the one that is set.</param>
/// <param name="Step">Above 0.</param>
public sealed record FanRange(double From, double To, double Step)
{
    /// <summary>Largest number of lines.</summary>
    public const int MostLines = 41;

    /// <exception cref="InputException">Turned over, or too many.</exception>
    public FanRange Checked(int mostLines = MostLines, string path = "range")
    {
        var checks = new Checks(path);
        checks.That(
            double.IsFinite(From) && double.IsFinite(To) && To >= From,
            "to",
            "The range ends before it begins.",
            $"{From} or more"
        );
        checks.That(double.IsFinite(Step) && Step > 0, "step", "A step must be above 0.", "0.01 to 20");
        checks.ThrowIfAny();
        checks.That((To - From) / Step < mostLines, "step", "These are too many lines.", $"at most {mostLines} lines");
        checks.ThrowIfAny();
        return this;
    }

    /// <summary>Returns every setting, from the lowest.</summary>
    public IEnumerable<double> Settings()
    {
        for (var i = 0; From + i * Step <= To + 1e-9; i++)
            yield return From + i * Step;
    }
}

/// <summary>One line of a fan: the stroke with one thing changed, aimed anew unless the aim is kept, and what it does.</summary>
/// <param name="Key">stun, follow or screw for a route, else the change, such as +0.5; of small errors with the knob before it.</param>
/// <param name="Stroke">As played. A route for which the pace is too soft is played as softly as it can be.</param>
/// <param name="Potted">Whether the chosen ball goes in; null without a pot.</param>
/// <param name="Miss">How it was missed; null if it went in.</param>
/// <param name="AimThatPots">Where the aim is kept: the aim with which this stroke pots the ball, degrees; null if there is none.</param>
/// <param name="DoesGoal">Whether the white does what is asked; null if nothing is.</param>
/// <param name="PassesBy">By how much the white passes the ball that the stroke as set meets first, m; null if it meets it first.</param>
public sealed record FanLine(
    string Key,
    Stroke Stroke,
    bool? Potted,
    PotMiss? Miss,
    double? AimThatPots,
    bool? DoesGoal,
    double? PassesBy,
    StrokeEnd End,
    IReadOnlyList<PathPoint> WhitePath,
    IReadOnlyList<PathPoint> BallPath
);

/// <summary>Variants of a stroke with one parameter changed: the three routes to a pot, or settings of one knob.</summary>
public static class Fan
{
    private static readonly double[] PaceSteps = [-1, -0.5, 0.5, 1],
        HeightSteps = [-1, -0.5, 0.5, 1],
        SideSteps = [-0.5, 0.5],
        AimSteps = [-1, -0.5, 0.5, 1];

    /// <summary>Small errors that anybody makes: degrees, steps of pace, tips. Common practice, no source.</summary>
    private static readonly (string Name, StrokeKnob Knob, double By)[] UsualErrors =
    [
        ("aim", StrokeKnob.Aim, 0.5),
        ("pace", StrokeKnob.Pace, 0.5),
        ("side", StrokeKnob.Side, SideChoice.Touch),
    ];

    /// <summary>Butts where none are asked for, degrees: level, as a cue lies over a rail, dug down.</summary>
    private static readonly double[] UsualButts = [0, 6, 20];

    private const double RoutePaceStep = 0.25;

    /// <summary>Returns the lines of a fan.</summary>
    /// <param name="range">Settings of the knob; null for a few usual ones around that of the stroke.</param>
    /// <returns>Lines for those changes that are within the limits and for which there is an aim; no routes without a pot.</returns>
    public static IReadOnlyList<FanLine> Of(VariantQuestion question, FanKind kind, FanRange? range, Workers workers)
    {
        if (question.Cut is { CanBeAimed: false } && !question.KeepsAim)
            return [];
        // What the hand does by mistake it does with the aim as it is, and an aim that is turned is kept.
        if (kind is FanKind.Errors or FanKind.Aims)
            question = question with { KeepsAim = true };
        if (kind == FanKind.Butts)
            question = question with { Butt = null };
        var changes = Changes(question, kind, range).ToList();
        var meant = StrokeVariants.FirstOf(question);
        var lines = workers.InParallel(changes.Count, i => Play(question, changes[i].Key, changes[i].Stroke, meant));
        return [.. lines.OfType<FanLine>()];
    }

    private static string Signed(double step) => step.ToString("+0.0#;-0.0#", CultureInfo.InvariantCulture);

    private static IEnumerable<(string Key, Stroke Stroke)> Changes(VariantQuestion question, FanKind kind, FanRange? range)
    {
        var stroke = question.Stroke;
        return kind switch
        {
            FanKind.Routes => Routes(question),
            FanKind.Paces => Turned(stroke, StrokeKnob.Pace, range, PaceSteps),
            FanKind.Heights => Turned(stroke, StrokeKnob.Height, range, HeightSteps),
            FanKind.Sides => Turned(stroke, StrokeKnob.Side, range, SideSteps),
            FanKind.Butts => Turned(stroke, StrokeKnob.Elevation, range, [.. UsualButts.Select(b => b - stroke.ElevationDegrees)]),
            FanKind.Aims => Turned(stroke, StrokeKnob.Aim, range, AimSteps),
            _ => Errors(stroke),
        };
    }

    private static IEnumerable<(string Key, Stroke Stroke)> Turned(Stroke stroke, StrokeKnob knob, FanRange? range, double[] usual)
    {
        var set = knob.Of(stroke);
        var settings = range?.Settings().Select(v => knob == StrokeKnob.Aim ? set + v : v) ?? usual.Select(step => set + step);
        foreach (var setting in settings.Where(v => knob.Allows(stroke, v)))
            yield return (
                knob == StrokeKnob.Elevation ? $"{setting:0.#}" : Signed(Math.Round(setting - set, 6)),
                knob.Turned(stroke, setting)
            );
    }

    private static IEnumerable<(string Key, Stroke Stroke)> Errors(Stroke stroke)
    {
        foreach (var (name, knob, by) in UsualErrors)
            foreach (var step in (double[])[-by, by])
                if (knob.Of(stroke) + step is var setting && knob.Allows(stroke, setting))
                    yield return (name + Signed(step), knob.Turned(stroke, setting));
    }

    private static IEnumerable<(string Key, Stroke Stroke)> Routes(VariantQuestion question)
    {
        if (question.Cut is not { } cut)
            yield break;
        var (stroke, trial) = (question.Stroke, new PotTrial(question.Layout, cut, question.Shape));
        // As much follow and screw as leaves a margin before a miscue; stun is found, for it depends on distance and pace.
        var most = 0.8 * Math.Sqrt(Math.Max(0, Tip.Limit * Tip.Limit - stroke.SideTips * stroke.SideTips));
        yield return ("follow", stroke with { HeightTips = most });
        var (firm, stun) = SoftestStun(stroke, most, trial, cut, question.Shape);
        if (stun is { } height)
            yield return ("stun", firm with { HeightTips = height });
        yield return ("screw", firm with { HeightTips = -most });
    }

    /// <summary>
    /// The stroke at its pace, or at the softest one with which it arrives as stun, and the height for that; the height is null if it
    /// arrives with follow at every pace.
    /// </summary>
    private static (Stroke Stroke, double? Height) SoftestStun(Stroke stroke, double most, PotTrial trial, in Cut cut, TableShape shape)
    {
        for (var pace = stroke.Pace; pace <= Pace.Hardest; pace += RoutePaceStep)
            if (StunHeight(stroke with { Pace = pace }, most, trial, cut, shape) is { } height)
                return (stroke with { Pace = pace }, height);
        return (stroke, null);
    }

    /// <summary>
    /// The height at which the cue ball arrives with no spin about the axis across its way; null if even the lowest arrives with follow.
    /// </summary>
    private static double? StunHeight(Stroke stroke, double most, PotTrial trial, in Cut cut, TableShape shape)
    {
        double? Follow(double height, in Cut c)
        {
            var played = stroke with { AimDegrees = c.AimDegrees, HeightTips = height };
            trial.Miss(played);
            return Arrival.Of(trial.Record, played.ToStrike(), shape)?.Follow;
        }
        var (low, high) = (-most, most);
        if (!(Follow(low, cut) < 0) || !(Follow(high, cut) > 0))
            return null;
        for (var i = 0; i < 30; i++)
        {
            var middle = (low + high) / 2;
            if (Follow(middle, cut) > 0)
                high = middle;
            else
                low = middle;
        }
        return (low + high) / 2;
    }

    private static FanLine? Play(VariantQuestion question, string key, Stroke changed, int meant)
    {
        var variants = new StrokeVariants(question);
        if (variants.AimedAnew(changed) is not { } stroke)
            return null;
        var (after, record) = variants.Play(stroke);
        var (layout, cut) = (question.Layout, question.Cut);
        var end = StrokeEnd.Of(record, after, layout);
        var paths = ShotPath.Points(record, after.Count, ShotPath.Drawn);
        var target = cut?.Pot.Slot ?? end.First;
        return new(
            Key: key,
            Stroke: stroke,
            Potted: cut is { } pot ? after.PocketOf(pot.Pot.Slot) == pot.Pocket : null,
            Miss: cut is { } missed ? PotMiss.Of(record, after, missed, question.Shape) : null,
            AimThatPots: question.KeepsAim ? variants.AimThatPots(stroke) : null,
            DoesGoal: question.Goal?.IsMet(record, after, layout),
            PassesBy: meant > 0 && end.First != meant ? Math.Max(0, Contacts.Clearance(record, layout.Balls[meant])) : null,
            End: end,
            WhitePath: paths[0],
            BallPath: target > 0 ? paths[target] : []
        );
    }
}
