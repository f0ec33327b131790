using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Core.Search;

/// <summary>A stroke that pots its ball when played without error.</summary>
/// <param name="Chance">Quick estimate of the probability that it pots, 0–1.</param>
/// <param name="Value">Value by that estimate and the table that it leaves, less the penalty.</param>
/// <param name="Next">Evaluation of the table that it leaves.</param>
internal sealed record TrialStroke(
    PotCandidate Of,
    Stroke Stroke,
    Reach Reach,
    double Chance,
    double Value,
    PlayedStroke Outcome,
    Quality Next
)
{
    /// <summary>Share of what is at stake that a stroke is ranked lower by, for not being simple.</summary>
    public double Penalty { get; init; }

    /// <summary>Value of a usual miss.</summary>
    public double Missed { get; init; }
}

/// <summary>
/// Second stage of <see cref="ShotSearch"/>: strokes on a grid of heights, sides and paces, aimed and played without error.
/// </summary>
internal sealed class TrialStrokes(SearchContext context)
{
    /// <summary>Strokes for one pot are alike if they leave the white nearer than this, m, …</summary>
    private const double SamePlace = 0.04;

    /// <summary>… and neither is this many times as fast as the other.</summary>
    private const double SameSpeed = 1.3;

    /// <summary>Returns the strokes of the whole grid that pot their ball.</summary>
    public List<TrialStroke> OnGrid(Situation from, List<PotCandidate> candidates, Effort effort)
    {
        var columns = candidates.SelectMany(c => Columns(effort).Select(column => (Candidate: c, column.Height, column.Side))).ToList();
        return
        [
            .. context
                .InParallel(columns.Count, (workspace, i) =>
                    Column(workspace, from, columns[i].Candidate, (columns[i].Height, columns[i].Side), effort)
                )
                .SelectMany(t => t),
        ];
    }

    /// <summary>Returns the grid's pairs of height and side, tips.</summary>
    public IEnumerable<(double Height, double Side)> Columns(Effort effort)
    {
        foreach (var height in effort.Heights)
            yield return (height, 0);
        if (context.Preferences.PlainOnly)
            yield break;
        foreach (var side in effort.Sides)
            foreach (var height in effort.SideHeights)
                yield return (height, side);
    }

    /// <summary>Tries one height and side of the tip at every pace, from the softest.</summary>
    public List<TrialStroke> Column(
        Workspace workspace,
        Situation from,
        PotCandidate candidate,
        (double Height, double Side) tip,
        Effort effort
    )
    {
        var found = new List<TrialStroke>();
        var aiming = new PotTrial(from.Layout, candidate.Cut, context.Shape);
        double? near = null;
        var softest = new Stroke(candidate.Cut.AimDegrees, tip.Side, tip.Height, Effort.Softest, 0);
        var reach = Reach.Of(from.Layout, softest, context.Player);
        foreach (var pace in effort.Paces)
            if (Try(workspace, aiming, from, candidate, reach, softest with { Pace = pace }, ref near) is { } tried)
                found.Add(tried);
        return found;
    }

    /// <summary>Aims a stroke and plays it; null if it has no aim, or does not score even without error.</summary>
    /// <param name="near">Aim of a similar stroke, degrees, from which the search for the aim starts; set to the aim found.</param>
    public TrialStroke? Try(
        Workspace workspace,
        PotTrial aiming,
        Situation from,
        PotCandidate candidate,
        Reach reach,
        Stroke stroke,
        ref double? near
    )
    {
        context.Cancel.ThrowIfCancellationRequested();
        if (stroke.Pace > context.Preferences.HardestPace)
            return null;
        stroke = stroke with { ElevationDegrees = reach.ButtDegrees };
        if (PotAim.Find(aiming, candidate.Cut, stroke, near, PotAim.Roughly) is not { } aim)
            return null;
        near = aim;
        stroke = stroke with { AimDegrees = aim };
        var played = workspace.Play(from, stroke, default, candidate.Nominated);
        if (played.Ruling.Points == 0 || workspace.Simulator.PocketOf(candidate.Pot.Slot) != candidate.Cut.Pocket)
            return null;
        if (!KeepsWishes(workspace.Record, from.Layout, candidate))
            return null;
        var penalty = PenaltyOf(workspace, candidate, stroke);
        var scored = workspace.ValueOf(played.Leaves, out var next);
        if (!LeavesNext(from, played, next.Best))
            return null;
        var chance = candidate.Cut.Kind == PotKind.Direct ? ChanceOf(workspace, from, candidate.Cut, stroke, reach) : candidate.Chance;
        var missed = context.Objective.AfterMiss(from.Frame.AfterMiss) - context.MissMinded;
        // Simplicity counts as a share of what is at stake.
        var value = missed + chance * (scored - missed) - penalty * chance * Math.Abs(scored - missed);
        return new(candidate, stroke, reach, chance, value, played, next.Best) { Penalty = penalty, Missed = missed };
    }

    /// <summary>The quick estimate with what this stroke adds to it: reach, power, and the allowance for side.</summary>
    private double ChanceOf(Workspace workspace, Situation from, in Cut cut, in Stroke stroke, in Reach reach)
    {
        var line = stroke.SideTips == 0 ? default : AimLine.Of(from.Layout, stroke, workspace.Simulator, workspace.Record);
        return QuickChance.Of(
            cut.Window,
            Angle.FromDegrees(cut.CutDegrees).Abs,
            cut.CueBallDistance,
            context.Player.Skill.Times(reach.ErrorFactor * Skill.GrowthAt(stroke.Pace)),
            Math.Abs(Angle.FromDegrees(line.AllowedDegrees).Radians) * cut.CueBallDistance
        );
    }

    /// <summary>Whether the white, played without error, meets neither a cushion nor a ball that it is to stay clear of.</summary>
    private bool KeepsWishes(ShotRecord record, Layout layout, PotCandidate candidate)
    {
        var wishes = context.Preferences;
        if (!wishes.NoCushion && wishes.KeepOff.Count == 0)
            return true;
        foreach (var e in record.Events)
        {
            if (wishes.NoCushion && e is { Ball: 0, Kind: ShotEventKind.Cushion or ShotEventKind.Jaw })
                return false;
            var met = e.IsOfWhiteWithBall ? e.Ball + e.Other : -1;
            if (met > 0 && met != candidate.Pot.Struck && wishes.KeepOff.Contains(layout.Balls[met].Ball))
                return false;
        }
        return true;
    }

    /// <summary>Whether the ball that is wished for next is on after the first shot.</summary>
    private bool LeavesNext(Situation from, PlayedStroke played, in Quality next) =>
        context.Preferences.Next is not { } wished
        || !context.IsRoot(from.Layout)
        || (next.Pot is { } pot && played.Leaves.Layout.Balls[pot.Line.Slot].Ball == wished);

    /// <summary>Of the value, where cannons are not wanted.</summary>
    private const double PenaltyOfUnwantedCannon = 0.3;

    private double PenaltyOf(Workspace workspace, in PotCandidate candidate, in Stroke stroke)
    {
        var runsIntoBall = Kisses.First(workspace.Record, candidate.Pot) is not null;
        return Simplicity.Penalty(stroke, candidate.Pot.Part, WhiteCushions(workspace.Record), runsIntoBall)
            + (runsIntoBall && context.Preferences.AvoidCannons ? PenaltyOfUnwantedCannon : 0)
            + (context.Preferences.FollowFirst ? PenaltyOfControl(stroke.HeightTips) : 0);
    }

    /// <summary>The easiest control is follow, then screw, then stun (common practice, no source).</summary>
    private static double PenaltyOfControl(double heightTips) =>
        heightTips > PlainTips ? 0
        : heightTips < -PlainTips ? 0.03
        : 0.05;

    /// <summary>Nearer to the centre than this the tip is on the middle, tips.</summary>
    private const double PlainTips = 0.15;

    private static int WhiteCushions(ShotRecord record)
    {
        var cushions = 0;
        foreach (var e in record.Events)
            if (e is { Ball: 0, Kind: ShotEventKind.Cushion })
                cushions++;
        return cushions;
    }

    /// <summary>Returns the best strokes that differ from one another.</summary>
    /// <param name="perPot">Most strokes kept for one candidate.</param>
    public static List<TrialStroke> Distinct(List<TrialStroke> tried, int most, int perPot)
    {
        var kept = new List<TrialStroke>();
        foreach (var one in tried.OrderByDescending(t => t.Value))
        {
            if (kept.Count == most)
                break;
            if (kept.All(k => !IsSame(k, one)) && kept.Count(k => k.Of == one.Of) < perPot)
                kept.Add(one);
        }
        return kept;
    }

    /// <summary>Whether two strokes pot one ball at about one pace and leave the white in one place.</summary>
    public static bool IsSame(TrialStroke a, TrialStroke b)
    {
        if (!a.Of.Pot.IsSameAs(b.Of.Pot) || Pace.Ratio(a.Stroke.Pace, b.Stroke.Pace) > SameSpeed)
            return false;
        return a.Outcome.Leaves.Layout.White.At.DistanceTo(b.Outcome.Leaves.Layout.White.At) < SamePlace;
    }
}
