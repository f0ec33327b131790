using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;

namespace DeepBaize.Core.Advice.Position;

/// <summary>A stroke for the pot, played without error.</summary>
/// <param name="Part">The part of the pocket aimed at.</param>
/// <param name="IsMet">Whether it pots the ball and the white does what is wanted.</param>
/// <param name="Distance">Distance of the white from the goal, m.</param>
/// <param name="Follow">Spin with which the white arrives, as <see cref="Arrival.Follow"/>.</param>
internal sealed record WayTrial(Stroke Stroke, double Part, bool Pots, bool IsMet, double Distance, Route Route, double Follow);

/// <summary>The pot at one part of the pocket: its geometry, and what finds the aim of a stroke.</summary>
internal sealed record WayAim(double Part, Cut Cut, PotTrial Aiming)
{
    public static WayAim Of(WayQuestion question, double part)
    {
        var cut = Cut.Of(question.Layout, question.Pot with { Part = part }, question.Shape);
        return new(part, cut, new(question.Layout, cut, question.Shape));
    }
}

/// <summary>First stage of <see cref="WaySearch"/>: strokes on a grid of sides, heights, paces and parts of the pocket.</summary>
internal sealed class WayTrials(SearchContext context, WayQuestion question, Freedom freedom)
{
    private const double SpeedRatio = 1.17;

    /// <summary>Distance kept to the edge of the miscue circle, tips.</summary>
    private const double Margin = 0.05;

    /// <summary>Plays a wave of the grid: for each side and part a number of heights, each at every pace.</summary>
    public List<WayTrial> OnGrid((double Side, double Part, int Heights)[] wave)
    {
        var columns = wave.SelectMany(c => Enumerable.Range(0, c.Heights).Select(i => (c.Side, c.Part, Height: HeightAt(i, c.Heights))))
            .Distinct()
            .ToList();
        return [.. context.InParallel(columns.Count, (workspace, i) => Column(workspace, columns[i])).SelectMany(t => t)];
    }

    private double HeightAt(int i, int heights) => freedom.LowestTips + (freedom.HighestTips - freedom.LowestTips) * i / (heights - 1);

    private List<WayTrial> Column(Workspace workspace, (double Side, double Part, double Height) column)
    {
        var (aiming, tried) = (WayAim.Of(question, column.Part), new List<WayTrial>());
        // Side leaves less room for height; heights that fall away are covered by the next column.
        var most = Math.Sqrt(Math.Max(0, Tip.Limit * Tip.Limit - column.Side * column.Side)) - Margin;
        if (Math.Abs(column.Height) > most)
            return tried;
        double? near = null;
        foreach (var pace in Pace.Ladder(Pace.CueSpeed(freedom.Softest), Pace.CueSpeed(freedom.Hardest), SpeedRatio))
        {
            var stroke = question.Stroke with { SideTips = column.Side, HeightTips = column.Height, Pace = pace };
            if (Try(workspace, aiming, stroke, near) is not { } one)
                continue;
            near = one.Stroke.AimDegrees;
            tried.Add(one);
        }
        return tried;
    }

    /// <summary>Aims a stroke and plays it; null if there is no aim.</summary>
    /// <param name="near">Aim of a similar stroke, degrees, from which the search for the aim starts.</param>
    public WayTrial? Try(Workspace workspace, WayAim aiming, Stroke stroke, double? near, double accuracy = PotAim.Roughly)
    {
        context.Cancel.ThrowIfCancellationRequested();
        stroke = stroke with { AimDegrees = aiming.Cut.AimDegrees, ElevationDegrees = question.Stroke.ElevationDegrees };
        stroke = stroke with { ElevationDegrees = Math.Max(stroke.ElevationDegrees, Reach.LeastFor(question.Layout, stroke)) };
        if (!aiming.Cut.CanBeAimed || PotAim.Find(aiming.Aiming, aiming.Cut, stroke, near, accuracy) is not { } aim)
            return null;
        stroke = stroke with { AimDegrees = aim };
        var (simulator, record) = Play(workspace, stroke, default);
        var pots = simulator.PocketOf(aiming.Cut.Pot.Slot) == aiming.Cut.Pocket && simulator.IsOnTable(0);
        return new(
            stroke,
            aiming.Part,
            pots,
            pots && question.Goal.IsMet(record, simulator, question.Layout),
            question.Goal.Distance(record, simulator, question.Layout),
            Route.Of(record, question.Goal.Meant),
            Arrival.Of(record, stroke.ToStrike(), question.Shape)?.Follow ?? 0
        );
    }

    /// <summary>Plays a stroke with an error.</summary>
    public (Simulator Simulator, ShotRecord Record) Play(Workspace workspace, in Stroke stroke, in StrokeError error)
    {
        context.Count();
        error.Play(workspace.Coarse, question.Layout, stroke, workspace.Record);
        return (workspace.Coarse, workspace.Record);
    }
}
