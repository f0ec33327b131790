using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Advice.Safety;

/// <summary>A safety with its figures, and the stroke that they are of.</summary>
internal sealed record ReportedSafety(Placed<TriedSafety> Of, SafetyOption Option, SafetyOutcomes Outcomes);

/// <summary>Last stage of <see cref="SafetySearch"/>: figures, ideas and drawings of the safeties that are reported.</summary>
internal sealed class SafetyReport(SearchContext context)
{
    /// <summary>
    /// Number of strokes whose best pot left is looked for by strokes: the difference that makes corrects the quick estimate of all of
    /// them.
    /// </summary>
    private const int LookedAt = 32,
        LookedAtOnce = 8;

    /// <summary>Estimates each stroke from a number of samples of a stream; leaves out those that are no safety.</summary>
    public List<ReportedSafety> Of(Situation from, List<Placed<TriedSafety>> ranked, int strokes, ErrorStream stream) =>
        [
            .. context
                .InParallel(ranked.Count, (workspace, i) =>
                {
                    var outcomes = Sample(workspace, from, ranked[i].Entrant, strokes, stream);
                    return new ReportedSafety(ranked[i], OptionOf(workspace, from, ranked[i], outcomes), outcomes);
                })
                .Where(r => IsSafety(r.Option)),
        ];

    /// <summary>
    /// Corrects the figures of reported strokes by the pots that some of their samples leave, judged by strokes; leaves out those that are
    /// then no safety.
    /// </summary>
    /// <param name="stream">From which they were sampled.</param>
    public List<ReportedSafety> Closely(Situation from, IReadOnlyList<ReportedSafety> reported, ErrorStream stream)
    {
        var looked = context.Bounded(LookedAt, 16);
        var pieces = (looked + LookedAtOnce - 1) / LookedAtOnce;
        var more = context.InParallel(reported.Count * pieces, (workspace, k) =>
        {
            var first = k % pieces * LookedAtOnce;
            return Looked(workspace, from, reported[k / pieces].Of.Entrant, stream, first, Math.Min(LookedAtOnce, looked - first));
        });
        for (var k = 0; k < more.Count; k++)
            for (var i = 0; i < more[k].Count; i++)
                reported[k / pieces].Outcomes.AddMore(k % pieces * LookedAtOnce + i, more[k][i]);
        var told = context.InParallel(reported.Count, (workspace, i) =>
            reported[i] with
            {
                Option = OptionOf(workspace, from, reported[i].Of, reported[i].Outcomes),
            }
        );
        return [.. told.Where(r => IsSafety(r.Option)).Select(r => r.Option.Idea == SafetyIdea.DoubleKiss ? WithSide(from, r) : r)];
    }

    /// <summary>By how much the figures of some samples change if the pot that they leave is judged by strokes.</summary>
    private List<MoreLeft> Looked(Workspace workspace, Situation from, TriedSafety tried, ErrorStream stream, int first, int count)
    {
        var scatter = workspace.ScatterOf(from.Layout, tried.Stroke);
        var more = new List<MoreLeft>(count);
        for (var i = first; i < first + count; i++)
        {
            var played = workspace.Play(from, tried.Stroke, scatter.Error(stream.At(i)), from.Layout.Balls[tried.Slot].Ball);
            var lines = workspace.LinesOf(played.Leaves.Layout);
            var (leave, frame) = (context.Judge.Of(played.Leaves, lines), played.Leaves.Frame);
            if (played.Ruling.Points > 0)
            {
                more.Add(default);
                continue;
            }
            var looked = context.Judge.Closely(played.Leaves, lines, leave);
            more.Add(
                new(
                    (looked.LeavesPot ? 1 : 0) - (leave.LeavesPot ? 1 : 0),
                    looked.Best.Chance - leave.Best.Chance,
                    context.Objective.Of(frame, looked) - context.Objective.Of(frame, leave)
                )
            );
        }
        return more;
    }

    /// <summary>A stroke that nearly always pots is a pot, and one whose miss leaves a pot is no shot to nothing.</summary>
    private static bool IsSafety(SafetyOption s) =>
        s.Odds.Pots.Value <= 0.15
        || (s.Odds.Pots.Value <= 0.9 && s.Odds.PotLeft.Value <= 0.3 * (1 - s.Odds.Pots.Value) && s.Leaves.Mean.Value <= NothingMuch);

    /// <summary>Mean value of a leave that is nothing much, points.</summary>
    private const double NothingMuch = 2;

    private SafetyOutcomes Sample(Workspace workspace, Situation from, TriedSafety tried, int strokes, ErrorStream stream)
    {
        var scatter = workspace.ScatterOf(from.Layout, tried.Stroke);
        var outcomes = new SafetyOutcomes();
        for (var i = 0; i < strokes; i++)
        {
            var played = workspace.Play(from, tried.Stroke, scatter.Error(stream.At(i)), from.Layout.Balls[tried.Slot].Ball);
            Add(outcomes, i, workspace, played, tried.Slot);
        }
        return outcomes;
    }

    private SafetyOption OptionOf(Workspace workspace, Situation from, Placed<TriedSafety> placed, SafetyOutcomes outcomes)
    {
        var tried = placed.Entrant;
        var ball = from.Layout.Balls[tried.Slot].Ball;
        workspace.Play(from, tried.Stroke, default, ball);
        var paths = ShotPath.Points(workspace.Record, from.Layout.Balls.Count, ShotPath.Drawn);
        var isAway = from.IsTouching(from.Layout.Balls[tried.Slot]);
        var aim = new SafetyAim(
            ball,
            isAway ? 0 : 1 - Math.Abs(tried.Offset),
            tried.Offset > 0,
            PositionJudge.SeenOf(from, tried.Slot).Share,
            isAway,
            tried.Stroke,
            Reach.Of(from.Layout, tried.Stroke, context.Player)
        );
        var ballToCushion = Cushions.Clearance(
            workspace.Simulator.IsOnTable(tried.Slot) ? workspace.Simulator.At(tried.Slot) : new(Length / 2, Width / 2)
        );
        var odds = outcomes.Odds;
        var idea = BreakOffs.IsOn(from) ? SafetyIdea.BreakOff : IdeaOf(aim, odds, tried, ballToCushion);
        return new(
            idea,
            aim,
            tried.Route,
            odds,
            new(outcomes.Worth.For(outcomes.Left), outcomes.WorstTenth, tried.Leave, tried.Played.Leaves),
            outcomes.Valued,
            outcomes.Points.Mean,
            placed.IsLevel,
            new(paths[0], paths[tried.Slot], outcomes.Whites, outcomes.Balls)
        );
    }

    private const int SideStrokes = 32;
    private static readonly ErrorStream SideErrors = ErrorStream.Named("safeties: tell side");

    /// <summary>
    /// Adds what a touch of side, meant or not, makes of a stroke that the balls are to come back to one another from.
    /// </summary>
    private ReportedSafety WithSide(Situation from, ReportedSafety reported)
    {
        var tried = reported.Of.Entrant;
        var isLeft = context.InParallel(context.Bounded(SideStrokes, 16), (workspace, i) =>
        {
            var side = tried.Stroke.SideTips + (i % 2 == 0 ? 1 : -1) * SideChoice.Touch;
            // A tip as high or low as it can be has no room for side, meant or not.
            var stroke = tried.Stroke with { SideTips = Tip.SideWithin(side, tried.Stroke.HeightTips) };
            var error = workspace.ScatterOf(from.Layout, stroke).Error(SideErrors.At(i));
            var played = workspace.Play(from, stroke, error, from.Layout.Balls[tried.Slot].Ball);
            var lines = workspace.LinesOf(played.Leaves.Layout);
            var leave = context.Judge.Of(played.Leaves, lines);
            return played.Ruling.Points == 0 && context.Judge.BestChance(played.Leaves, lines, leave) > PositionJudge.Even;
        });
        return reported with { Option = reported.Option with { PotLeftWithSide = Sums.Of(isLeft, left => left ? 1 : 0).Share } };
    }

    private void Add(SafetyOutcomes outcomes, int i, Workspace workspace, PlayedStroke played, int slot)
    {
        if (workspace.Simulator.IsOnTable(0))
            outcomes.Whites.Add(workspace.Simulator.At(0));
        if (workspace.Simulator.IsOnTable(slot))
            outcomes.Balls.Add(workspace.Simulator.At(slot));
        var lines = workspace.LinesOf(played.Leaves.Layout);
        var (leave, frame) = (context.Judge.Of(played.Leaves, lines), played.Leaves.Frame);
        var isLeft = played.Ruling.Points == 0;
        var value = context.Objective.Of(frame, leave);
        outcomes.Value.Add(i, value);
        outcomes.Points.Add(i, leave.PointsAfter(played.Ruling));
        outcomes.Fouls.Add(i, played.Ruling.IsFoul);
        outcomes.Pots.Add(i, !isLeft);
        outcomes.Left.Add(i, isLeft);
        outcomes.Worth.Add(i, isLeft ? leave.Worth : 0);
        outcomes.Snookers.Add(i, isLeft && leave.Sight.IsSnookered && !leave.Lie.IsInHand);
        outcomes.PotsLeft.Add(i, isLeft && leave.LeavesPot);
        outcomes.Rival.Add(i, isLeft ? leave.Best.Chance : 0);
        outcomes.Tight.Add(i, isLeft && leave.Lie.IsTight);
        outcomes.Baulk.Add(i, isLeft && played.Leaves.Layout.White.X < BaulkLineX);
        if (isLeft)
            outcomes.Worths.Add(leave.Worth);
    }

    /// <summary>Names the idea of a safety by what comes of it.</summary>
    private static SafetyIdea IdeaOf(SafetyAim aim, in SafetyOdds odds, TriedSafety tried, double ballToCushion) =>
        odds.Pots.Value > 0.15 ? SafetyIdea.ShotToNothing
        : odds.Snooker.Value > 0.4 ? SafetyIdea.Snooker
        : !aim.IsAway && aim.Fullness < 0.35 && odds.Baulk.Value > 0.4 ? SafetyIdea.ThinClip
        : tried.Route.Balls.Any(slot => slot != tried.Slot) ? SafetyIdea.Cannon
        : tried.Route.Balls.Count > 0 ? SafetyIdea.DoubleKiss
        : !aim.IsAway && ballToCushion < BallRadius ? SafetyIdea.BallToCushion
        : SafetyIdea.Containing;
}
