using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Strokes;

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
}

/// <summary>One line of a fan: the stroke with one thing changed, aimed anew, and what it does.</summary>
/// <param name="Key">stun, follow or screw for a route, else the change, such as +0.5.</param>
/// <param name="Stroke">As played. A route for which the pace is too soft is played as softly as it can be.</param>
/// <param name="Potted">Whether the chosen ball goes in.</param>
public sealed record FanLine(string Key, Stroke Stroke, bool Potted, IReadOnlyList<PathPoint> WhitePath, Pocket? WhitePocket);

/// <summary>Variants of a pot with one parameter changed: the three routes, or paces, heights or sides around the present stroke.</summary>
public static class Fan
{
    private static readonly double[] PaceSteps = [-1, -0.5, 0.5, 1],
        HeightSteps = [-1, -0.5, 0.5, 1],
        SideSteps = [-0.5, 0.5];

    private const double RoutePaceStep = 0.25;

    /// <returns>Lines for those changes that are within the limits and for which there is an aim.</returns>
    public static IReadOnlyList<FanLine> Of(Layout layout, Stroke stroke, Pot pot, FanKind kind, TableShape shape)
    {
        var cut = Cut.Of(layout, pot, shape);
        if (!cut.CanBeAimed)
            return [];
        var trial = new PotTrial(layout, cut, shape);
        var lines = new List<FanLine>();
        foreach (var (key, changed) in Changes(stroke, kind, trial, cut, shape))
            if (PotAim.Find(trial, cut, changed) is { } aim)
                lines.Add(Play(layout, changed with { AimDegrees = aim }, pot, key, shape));
        return lines;
    }

    private static IEnumerable<(string Key, Stroke Stroke)> Changes(Stroke stroke, FanKind kind, PotTrial trial, Cut cut, TableShape shape)
    {
        static string Signed(double step) => step.ToString("+0.0#;-0.0#", System.Globalization.CultureInfo.InvariantCulture);
        switch (kind)
        {
            case FanKind.Routes:
                // As much follow and screw as leaves a margin before a miscue; stun is found, for it depends on distance and pace.
                var most = 0.8 * Math.Sqrt(Math.Max(0, Tip.Limit * Tip.Limit - stroke.SideTips * stroke.SideTips));
                yield return ("follow", stroke with { HeightTips = most });
                var (firm, stun) = SoftestStun(stroke, most, trial, cut, shape);
                if (stun is { } height)
                    yield return ("stun", firm with { HeightTips = height });
                yield return ("screw", firm with { HeightTips = -most });
                break;
            case FanKind.Paces:
                foreach (var step in PaceSteps)
                    if (stroke.Pace + step is >= Pace.Slowest and <= Pace.Hardest)
                        yield return (Signed(step), stroke with { Pace = stroke.Pace + step });
                break;
            case FanKind.Heights:
                foreach (var step in HeightSteps)
                    if (Tip.Margin(stroke.SideTips, stroke.HeightTips + step) >= 0)
                        yield return (Signed(step), stroke with { HeightTips = stroke.HeightTips + step });
                break;
            default:
                foreach (var step in SideSteps)
                    if (Tip.Margin(stroke.SideTips + step, stroke.HeightTips) >= 0)
                        yield return (Signed(step), stroke with { SideTips = stroke.SideTips + step });
                break;
        }
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

    private static FanLine Play(Layout layout, Stroke stroke, Pot pot, string key, TableShape shape)
    {
        var simulator = new Simulator(shape);
        var record = new ShotRecord();
        simulator.Place(layout.AsSpan());
        simulator.Play(stroke.ToStrike(), record);
        return new(
            key,
            stroke,
            simulator.PocketOf(pot.Slot) == pot.Pocket,
            ShotPath.Points(record, simulator.Count)[0],
            simulator.PocketOf(0)
        );
    }
}
