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
internal sealed record ReportedSafety(Placed<TriedSafety> Of, SafetyOption Option);

/// <summary>Last stage of <see cref="SafetySearch"/>: figures, ideas and drawings of the safeties that are reported.</summary>
internal sealed class SafetyReport(SearchContext context)
{
    /// <summary>
    /// Number of strokes whose best pot left is looked for by strokes: the difference that makes corrects the quick estimate of all of
    /// them.
    /// </summary>
    private const int LookedAt = 32;

    /// <summary>Estimates each stroke from a number of samples of a stream; leaves out those that are no safety.</summary>
    /// <param name="isFinal">Whether the pot that is left is judged by strokes.</param>
    public List<ReportedSafety> Of(Situation from, List<Placed<TriedSafety>> ranked, int strokes, ErrorStream stream, bool isFinal)
    {
        var options = context.InParallel(ranked.Count, (workspace, i) =>
            OptionOf(workspace, from, ranked[i], Sample(workspace, from, ranked[i].Entrant, (strokes, stream, isFinal)))
        );
        return [.. ranked.Zip(options, (of, option) => new ReportedSafety(of, option)).Where(r => IsSafety(r.Option))];
    }

    /// <summary>A stroke that nearly always pots is a pot, and one whose miss leaves a pot is no shot to nothing.</summary>
    private static bool IsSafety(SafetyOption s) =>
        s.Odds.Pots.Value <= 0.15
        || (s.Odds.Pots.Value <= 0.9 && s.Odds.PotLeft.Value <= 0.3 * (1 - s.Odds.Pots.Value) && s.Leaves.Mean.Value <= NothingMuch);

    /// <summary>Mean value of a leave that is nothing much, points.</summary>
    private const double NothingMuch = 2;

    /// <summary>Outcomes of the sampled strokes of one safety.</summary>
    private sealed class Outcomes
    {
        public readonly Sums Snookers = new(),
            PotsLeft = new(),
            Fouls = new(),
            Pots = new(),
            Rival = new(),
            Baulk = new(),
            Tight = new(),
            Worth = new(),
            Left = new(),
            Value = new(),
            Points = new(),
            MorePots = new(),
            MoreChance = new(),
            MoreValue = new();
        public readonly List<double> Worths = [];
        public readonly List<Vec2> Whites = [],
            Balls = [];

        public SafetyOdds Odds =>
            new(
                Snookers.Share,
                AsShare(Corrected(PotsLeft.Share, MorePots)),
                Fouls.Share,
                Pots.Share,
                Baulk.Share,
                Tight.Share,
                AsShare(Corrected(Rival.Mean, MoreChance))
            );

        public Estimate Valued => Corrected(Value.Mean, MoreValue);

        /// <summary>The quick estimate of all strokes with what looking closely at some of them adds: a control variate.</summary>
        private static Estimate Corrected(in Estimate quick, Sums more) => more.Strokes == 0 ? quick : quick.Plus(more.Mean);

        private static Estimate AsShare(in Estimate e) => e with { Value = Math.Clamp(e.Value, 0, 1) };

        /// <summary>Mean leave of the worst tenth, points; its standard error from their own scatter.</summary>
        public Estimate WorstTenth
        {
            get
            {
                Worths.Sort();
                var tenth = Worths.TakeLast(Math.Max(1, Worths.Count / 10)).ToList();
                if (Worths.Count == 0)
                    return default;
                var mean = tenth.Average();
                return new(mean, Math.Sqrt(tenth.Sum(w => (w - mean) * (w - mean))) / tenth.Count, Worths.Count);
            }
        }
    }

    private Outcomes Sample(Workspace workspace, Situation from, TriedSafety tried, (int Strokes, ErrorStream Stream, bool IsFinal) effort)
    {
        var scatter = workspace.ScatterOf(from.Layout, tried.Stroke);
        var outcomes = new Outcomes();
        for (var i = 0; i < effort.Strokes; i++)
        {
            var error = scatter.Error(effort.Stream.At(i));
            var played = workspace.Play(from, tried.Stroke, error, from.Layout.Balls[tried.Slot].Ball);
            Add(outcomes, i, workspace, played, tried.Slot, effort.IsFinal);
        }
        return outcomes;
    }

    private SafetyOption OptionOf(Workspace workspace, Situation from, Placed<TriedSafety> placed, Outcomes outcomes)
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
        )
        {
            PotLeftWithSide = idea == SafetyIdea.DoubleKiss ? WithSide(workspace, from, tried) : null,
        };
    }

    private const int SideStrokes = 64;
    private static readonly ErrorStream SideErrors = ErrorStream.Named("safeties: tell side");

    /// <summary>What a touch of side, meant or not, makes of a stroke that the balls are to come back to one another from.</summary>
    private Estimate WithSide(Workspace workspace, Situation from, TriedSafety tried)
    {
        var left = new Sums();
        for (var i = 0; i < context.Bounded(SideStrokes, 32); i++)
        {
            var side = tried.Stroke.SideTips + (i % 2 == 0 ? 1 : -1) * SideChoice.Touch;
            // A tip as high or low as it can be has no room for side, meant or not.
            var stroke = tried.Stroke with { SideTips = Tip.SideWithin(side, tried.Stroke.HeightTips) };
            var error = workspace.ScatterOf(from.Layout, stroke).Error(SideErrors.At(i));
            var played = workspace.Play(from, stroke, error, from.Layout.Balls[tried.Slot].Ball);
            var lines = workspace.LinesOf(played.Leaves.Layout);
            var leave = context.Judge.Of(played.Leaves, lines);
            left.Add(i, played.Ruling.Points == 0 && context.Judge.BestChance(played.Leaves, lines, leave) > PositionJudge.Even);
        }
        return left.Share;
    }

    private void Add(Outcomes outcomes, int i, Workspace workspace, PlayedStroke played, int slot, bool isFinal)
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
        if (isFinal && i < context.Bounded(LookedAt, 16))
        {
            var looked = isLeft ? context.Judge.Closely(played.Leaves, lines, leave) : leave;
            outcomes.MorePots.Add(i, (looked.LeavesPot ? 1 : 0) - (leave.LeavesPot ? 1 : 0));
            outcomes.MoreChance.Add(i, looked.Best.Chance - leave.Best.Chance);
            outcomes.MoreValue.Add(i, isLeft ? context.Objective.Of(frame, looked) - value : 0);
        }
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
