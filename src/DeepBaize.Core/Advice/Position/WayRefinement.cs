using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;

namespace DeepBaize.Core.Advice.Position;

/// <summary>
/// Second stage of <see cref="WaySearch"/>: brings the nearest strokes of each group nearer to the goal by small changes.
/// </summary>
internal sealed class WayRefinement(SearchContext context, WayQuestion question, Freedom freedom, WayTrials trials)
{
    /// <summary>Groups of strokes, by what the white does, that are followed: those that come nearest.</summary>
    private const int MostGroups = 10;

    /// <summary>Strokes refined from each group, each from another height or side.</summary>
    private const int SeedsOfGroup = 2;

    /// <summary>A stroke farther from the goal than this is not refined, m.</summary>
    private const double FarthestSeed = 0.7;

    /// <summary>Refinement ends this near to the goal, m.</summary>
    private const double NearEnough = 0.002;

    /// <summary>Events of the simulator spent on one stroke: a deterministic stand-in for time.</summary>
    private const int Events = 12_000;

    private const int FewestEvents = 1_000;

    public List<WayTrial> Improve(List<WayTrial> tried)
    {
        var seeds = tried
            .Where(t => t.Pots && t.Distance < FarthestSeed)
            .GroupBy(t => (t.Route.Key, Spin(t.Follow)))
            .OrderBy(g => g.Min(t => t.Distance))
            .Take(MostGroups)
            .SelectMany(g =>
                g.OrderBy(t => t.Distance).DistinctBy(t => (t.Stroke.HeightTips, t.Stroke.SideTips, t.Part)).Take(SeedsOfGroup)
            )
            .ToList();
        return context.InParallel(seeds.Count, (workspace, i) => Improve(workspace, seeds[i]));
    }

    /// <summary>Screw (−1), stun (0) or follow (1), by the spin that the white arrives with.</summary>
    public static int Spin(double follow) =>
        follow < -0.1 ? -1
        : follow > 0.3 ? 1
        : 0;

    /// <summary>Changes height and pace; side and the part of the pocket too where the seed uses them.</summary>
    private WayTrial Improve(Workspace workspace, WayTrial seed)
    {
        List<StrokeChange> changes = [new(Speed: 0.08), new(Height: 0.2), new(Height: 0.2, Speed: 0.08), new(Height: 0.2, Speed: -0.08)];
        if (seed.Stroke.SideTips != 0)
            changes.Add(new(Side: 0.2));
        if (seed.Part != 0)
            changes.Add(new(Part: 0.25));
        var (aiming, events, closest) = (WayAim.Of(question, seed.Part), 0, seed.Distance);
        var mostEvents = context.Bounded(Events, FewestEvents);
        return Refinement.Better(
            seed,
            changes,
            halvings: 4,
            (now, change) =>
            {
                var part = now.Part + change.Part;
                if (change.Of(now.Stroke, freedom.Softest, freedom.Hardest) is not { } stroke || !Allows(stroke, part))
                    return null;
                if (aiming.Part != part)
                    aiming = WayAim.Of(question, part);
                var next = trials.Try(workspace, aiming, stroke, change.Part == 0 ? now.Stroke.AimDegrees : null);
                events += workspace.Coarse.EventCount;
                return next is { Pots: true } ? next : null;
            },
            (a, b) =>
            {
                closest = Math.Min(closest, a.Distance);
                return a.Distance < b.Distance;
            },
            question.Layout.Mirror,
            () => closest <= NearEnough || events > mostEvents
        );
    }

    private bool Allows(in Stroke stroke, double part) =>
        stroke.HeightTips >= freedom.LowestTips
        && stroke.HeightTips <= freedom.HighestTips
        && Math.Abs(stroke.SideTips) <= freedom.MostSideTips
        && Math.Abs(part) <= 1;
}
