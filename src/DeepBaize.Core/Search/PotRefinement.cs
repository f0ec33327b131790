using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;

namespace DeepBaize.Core.Search;

/// <summary>Fourth stage of <see cref="ShotSearch"/>: improves the best strokes of each pot by small changes.</summary>
internal sealed class PotRefinement(SearchContext context, TrialStrokes trials, StrokeSampler sampler)
{
    private const int SeedsPerPot = 4;

    /// <summary>A changed stroke that loses more than this share of what is at stake, without error, is not sampled.</summary>
    private const double HopelessLoss = 0.15;

    private static readonly StrokeChange[] PlainChanges = [new(Speed: 0.1), new(Height: 0.2), new(Part: 0.5)],
        Changes = [new(Speed: 0.1), new(Height: 0.2), new(Side: 0.3), new(Part: 0.5)];

    /// <summary>Returns the improved strokes, best first, none like another.</summary>
    /// <param name="draws">The draws that screened the strokes, so that values stay comparable.</param>
    public List<RankedStroke> Improve(Situation from, List<RankedStroke> ranked, StandardDraws[] draws, Effort effort)
    {
        // The best of each pot first, so that no idea is lost for want of room.
        var seeds = ranked
            .GroupBy(r => r.Trial.Of.Pot)
            .SelectMany(g => g.Take(SeedsPerPot))
            .OrderByDescending(r => r.Value)
            .Take(effort.Refined)
            .ToList();
        if (seeds.Count == 0)
            return ranked;
        var refined = context.InParallel(seeds.Count, (workspace, i) => Improve(workspace, from, seeds[i], draws, effort));
        return Distinctness.Distinct(refined.OrderByDescending(r => r.Value), (a, b) => TrialStrokes.IsSame(a.Trial, b.Trial));
    }

    private RankedStroke Improve(Workspace workspace, Situation from, RankedStroke seed, StandardDraws[] draws, Effort effort)
    {
        var (pot, aimingAtPot) = (seed.Trial.Of, new PotTrial(from.Layout, seed.Trial.Of.Cut, context.Shape));
        return Refinement.Better(
            seed,
            context.Preferences.PlainOnly ? PlainChanges : Changes,
            effort.Halvings,
            (now, change) =>
            {
                if (change.Of(now.Trial.Stroke, Effort.Softest, Effort.Hardest) is not { } stroke)
                    return null;
                var candidate = now.Trial.Of;
                if (change.Part != 0)
                {
                    if (candidate.Cut.Kind != PotKind.Direct || candidate.InPart(change.Part, from.Layout, context.Shape) is not { } moved)
                        return null;
                    candidate = moved;
                }
                var aiming = candidate == pot ? aimingAtPot : new PotTrial(from.Layout, candidate.Cut, context.Shape);
                double? near = change.Part == 0 ? now.Trial.Stroke.AimDegrees : null;
                var reach = Reach.Of(from.Layout, stroke, context.Player);
                return
                    trials.Try(workspace, aiming, from, candidate, reach, stroke, ref near) is not { } tried
                    || tried.Value < now.Trial.Value - HopelessLoss * Math.Abs(now.Trial.Value - now.Trial.Missed)
                    ? null
                    : sampler.Sample(workspace, from, tried, draws);
            },
            (a, b) => a.Value > b.Value,
            from.Layout.Mirror
        );
    }
}
