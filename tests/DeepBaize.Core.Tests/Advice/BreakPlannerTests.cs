using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Advice.Decide;
using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Advice;

/// <summary>
/// The planner on the exercises that players know. What they should come to is common practice, no source, where nothing else is named.
/// </summary>
[Trait("Speed", "Slow")]
public class BreakPlannerTests
{
    private static readonly TableShape Shape = new(Conditions.Default);
    private static readonly Player County = Player.OfSkill("county");

    private static PlanProgress Solve(
        Situation from,
        PlanPreferences? preferences = null,
        string skill = "county",
        FairGate? gate = null,
        CancellationToken cancel = default,
        IProgress<PlanProgress>? progress = null
    ) =>
        BreakPlanner.Solve(
            from,
            preferences ?? PlanPreferences.Default,
            Player.OfSkill(skill),
            Shape,
            gate ?? new FairGate(2),
            progress,
            cancel
        );

    private static Situation Table(double x, double y, IEnumerable<PlacedBall> balls, BallOn? on = null, bool repeats = false) =>
        Situation.Create(Layout.OfRest([new(Ball.White, x, y), .. balls]), new() { On = on, Repeats = repeats });

    private static Situation Colours { get; } = Table(1.02, 0.74, Rack.Colours());

    /// <summary>Three reds in the open and the colours on their spots.</summary>
    private static Situation FewReds { get; } =
        Table(2.63, 0.62, [.. Rack.Colours(), new(Ball.Red(1), 2.98, 0.47), new(Ball.Red(2), 3.05, 1.25), new(Ball.Red(3), 2.55, 1.20)]);

    // Each takes seconds, so the tests share them.
    private static readonly List<PlanProgress> ToldOfColours = [];
    private static readonly Lazy<PlanProgress> ColoursPlanned = new(() => Solve(Colours, progress: new Teller(ToldOfColours.Add)));
    private static readonly Lazy<PlanProgress> FewRedsPlanned = new(() => Solve(FewReds));

    [Fact]
    public void The_colours_are_planned_in_their_order_to_the_end()
    {
        var best = ColoursPlanned.Value.Plans[0];
        Assert.Equal(Ball.Colours, best.Shots.Select(s => s.Choice.Nominated));
        Assert.Equal([2, 5, 9, 14, 20, 27], best.Shots.Select(s => s.Points));
        Assert.True(best.IsComplete);
        Assert.All(best.Shots.Zip(best.Shots.Skip(1)), pair => Assert.True(pair.First.Alive.Value >= pair.Second.Alive.Value));
    }

    /// <summary>
    /// Both ways of asking: the breaks of the plan, and the chance to win before a stroke is chosen, each with its errors.
    /// </summary>
    [Fact]
    public void The_plan_and_the_chance_to_win_agree_on_the_colours_on_their_spots()
    {
        var chance = FrameChance.Of(Colours, County, County, Shape);
        var plan = ColoursPlanned.Value.Plans[0].Prospect!.Value;
        var errors = new[] { chance.Win.Error, chance.ModelError, plan.Error, ColoursPlanned.Value.ModelError };
        Assert.Equal(chance.Win.Value, plan.Value, 2 * Math.Sqrt(errors.Sum(e => e * e)));
        // Well placed, level, four of the six are enough: better than a toss by far.
        Assert.InRange(chance.Win.Value, 0.65, 0.95);
        Assert.Equal("win", ColoursPlanned.Value.Unit);
    }

    [Fact]
    public void Where_no_pot_is_worth_as_much_as_a_safety_the_plan_turns_to_it()
    {
        // One red to pot and a colour after it; the other red is tight on the baulk cushion behind the brown.
        var table = Table(2.75, 0.62, [.. Rack.Colours(), new(Ball.Red(1), 3.0, 0.42), new(Ball.Red(2), BallRadius, Width / 2)]);
        var plan = Solve(table, skill: "club", gate: Thoroughness.Gate(2)).Plans[0];
        var turn = plan.Turn!;
        Assert.True(plan.IsComplete);
        Assert.True(turn.PotValue is null || turn.Value > turn.PotValue, $"{turn.Value} {turn.PotValue}");
        Assert.Equal(plan.Shots[^1].Choice.Leaves.Layout.Balls, turn.Before.Layout.Balls);
        Assert.Equal(Ball.Red(2), turn.Before.Layout.Balls[turn.Safety.Slot].Ball);
    }

    [Fact]
    public void Reds_and_colours_come_in_turn_and_every_shot_begins_where_the_one_before_ended()
    {
        var shots = FewRedsPlanned.Value.Plans[0].Shots;
        Assert.True(shots.Count >= 4);
        Assert.All(shots.Take(6).Select((s, i) => (s, i)), t => Assert.Equal(t.i % 2 == 0, t.s.Choice.Nominated.IsRed));
        foreach (var (shot, next) in shots.Zip(shots.Skip(1)))
        {
            Assert.Equal(shot.Choice.Leaves.Layout.Balls, next.Before.Layout.Balls);
            // The reason that gives the angle on the next ball names the ball that is played next, or one as good.
            Assert.NotEmpty(shot.Reasons);
        }
    }

    [Fact]
    public void The_same_question_has_the_same_answer_on_any_number_of_cores()
    {
        var (one, two) = (Solve(Colours, gate: Thoroughness.Gate(1)), Solve(Colours, gate: Thoroughness.Gate(2)));
        Assert.Equal(one.Plans[0].Shots.Select(s => s.Choice.Stroke), two.Plans[0].Shots.Select(s => s.Choice.Stroke));
        Assert.Equal(one.Plans.Select(p => p.Prospect!.Points), two.Plans.Select(p => p.Prospect!.Points));
        Assert.Equal(one.Alternatives.Select(a => a.Value), two.Alternatives.Select(a => a.Value));
    }

    /// <summary>
    /// Another program's view of the same number: plain frequency of the planned stroke, fresh errors, no code of the search.
    /// </summary>
    [Fact]
    public void The_chance_of_the_first_shot_is_how_often_it_goes_in()
    {
        var shot = Solve(FewReds, skill: "club").Plans[0].Shots[0];
        var (simulator, random, potted) = (new Simulator(Shape), new Random(99), 0);
        const int strokes = 2000;
        var skill = Skill.Named("club").Times(shot.Choice.Reach.ErrorFactor);
        var scatter = Scatter.Of(shot.Before.Layout, shot.Choice.Stroke, skill, Shape);
        for (var i = 0; i < strokes; i++)
        {
            scatter.Error(StandardDraws.Draw(random)).Play(simulator, shot.Before.Layout, shot.Choice.Stroke, null);
            if (simulator.PocketOf(shot.Choice.Pot.Slot) is not null && simulator.PocketOf(0) is null)
                potted++;
        }
        var told = shot.Choice.Odds.Chance;
        var deviation = Math.Sqrt(told.Error * told.Error + told.Value * (1 - told.Value) / strokes);
        Assert.InRange(told.Value - (double)potted / strokes, -4 * deviation, 4 * deviation);
    }

    [Fact]
    public void The_black_off_its_spot_again_and_again()
    {
        var best = Solve(Table(2.95, 0.65, Rack.Colours().Where(c => c.Ball == Ball.Black), repeats: true)).Plans[0];
        Assert.All(best.Shots, s => Assert.Equal(Ball.Black, s.Choice.Nominated));
        Assert.Equal([7, 14, 21, 28], best.Shots.Take(4).Select(s => s.Points));
        Assert.All(best.Shots.Skip(1), s => Assert.Equal(Spot(Ball.Black), s.Before.Layout.Balls[1].At));
    }

    [Fact]
    public void From_high_on_the_black_the_full_pack_is_opened()
    {
        // Only the first shot is asked for: the rest of the plan is left.
        var (told, stop) = (new List<PlanProgress>(), new CancellationTokenSource());
        var teller = new Teller(p =>
        {
            told.Add(p);
            if (p.Alternatives.Count > 0)
                stop.Cancel();
        });
        var pack = Table(3.03, 1.12, [.. Rack.Colours(), .. Rack.Pack().Take(14)], BallOn.Colour);
        Assert.ThrowsAny<OperationCanceledException>(() => Solve(pack, progress: teller, cancel: stop.Token));
        var best = told[^1].Plans[0].Shots[0];
        Assert.Equal(Ball.Black, best.Choice.Nominated);
        Assert.Contains(best.Reasons, r => r.Code == ReasonCode.Opens && r.Amount >= 2);
    }

    [Fact]
    public void The_last_red_is_finished_for_a_colour_that_can_be_potted()
    {
        var best = Solve(Table(2.35, 1.22, [.. Rack.Colours(), new(Ball.Red(1), 2.92, 1.33)])).Plans[0];
        Assert.True(best.Shots[0].Choice.Nominated.IsRed);
        Assert.True(best.Shots[1].Choice.Nominated.IsColour && best.Shots[1].Choice.Chance > 0.9);
        Assert.Equal(Ball.Yellow, best.Shots[2].Choice.Nominated);
    }

    [Fact]
    public void A_player_who_wants_no_side_gets_none()
    {
        var plans = Solve(Colours, new(PlainOnly: true)).Plans;
        Assert.All(plans.SelectMany(p => p.Shots), s => Assert.Equal(0, s.Choice.Stroke.SideTips));
    }

    [Fact]
    public void Playing_to_clear_is_told_by_how_often_it_is_done()
    {
        var plan = Solve(Colours, new(PlanTarget.Clear), "tour").Plans[0];
        Assert.InRange(plan.Prospect!.Target!.Value.Value, 0.4, 1);
        Assert.Equal(plan.Prospect.Cleared, plan.Prospect.Target);
        Assert.InRange(plan.Shots[0].Choice.Value.Value, 0, 1.05);
    }

    [Fact]
    public void A_score_that_no_break_can_reach_is_refused() =>
        Assert.Equal(
            "preferences.score",
            Assert.Throws<InputException>(() => new PlanPreferences(PlanTarget.Score, 28).Checked(Colours)).Errors[0].Field
        );

    [Fact]
    public void With_nothing_on_there_is_no_plan()
    {
        // The red is hidden behind the brown and its neighbours, and is no plant either.
        var answer = Solve(Table(0.55, Width / 2, [.. Rack.Colours(), new(Ball.Red(1), 2.95, 0.93)]));
        Assert.Empty(answer.Plans);
        Assert.Equal(1, answer.Share);
    }

    [Fact]
    public void Progress_rises_to_the_end_and_names_the_best_so_far()
    {
        _ = ColoursPlanned.Value;
        var told = ToldOfColours;
        Assert.All(told, t => Assert.NotEmpty(t.Plans));
        Assert.All(told.Zip(told.Skip(1)), pair =>
            Assert.True(pair.First.Share <= pair.Second.Share && pair.First.Examined <= pair.Second.Examined)
        );
        Assert.Equal(1, told[^1].Share);
    }

    [Fact]
    public void A_plan_that_is_cancelled_ends()
    {
        using var cancel = new CancellationTokenSource();
        Assert.ThrowsAny<OperationCanceledException>(() =>
            Solve(FewReds, cancel: cancel.Token, progress: new Teller(_ => cancel.Cancel()))
        );
    }

    [Fact]
    public void A_shot_is_for_the_ball_that_the_plan_goes_on_with()
    {
        foreach (var plan in FewRedsPlanned.Value.Plans)
            foreach (var (shot, following) in plan.Shots.Zip(plan.Shots.Skip(1)))
            {
                if (following.Choice.Target.Cut.Kind != PotKind.Direct || shot.Choice.Next.Pot is not { } next)
                    continue;
                var layout = shot.Choice.Leaves.Layout;
                Assert.Equal(following.Choice.Nominated, layout.Balls[next.Line.Slot].Ball);
                // What is said of a pot that comes next is said of that one.
                Assert.All(shot.Reasons.Where(r => r.Code is ReasonCode.Angle or ReasonCode.Straight or ReasonCode.Steep), r =>
                    Assert.Equal(following.Choice.Nominated, r.Ball)
                );
            }
    }

    [Fact]
    public void The_area_to_aim_for_holds_the_place_that_is_meant_and_is_worth_as_much_throughout()
    {
        var shot = FewRedsPlanned.Value.Plans[0].Shots[0];
        var after = shot.Choice.Leaves;
        Assert.True(Contours.Contains(shot.Drawing.Area, after.Layout.White.At));
        var (evaluation, lines) = (new Evaluation(County, PlanPreferences.Default), new PotLines(after.Layout, Shape));
        var next = lines.BallIn(shot.Choice.Next.Pot!.Value.Line.Slot);
        bool IsMeant(Ball ball) => next.IsRed ? ball.IsRed : ball == next;
        var meant = evaluation.At(after, lines, after.Layout.White.At, only: IsMeant).Value;
        foreach (var p in shot.Drawing.Area)
        {
            // A little inside the outline.
            var (x, y) = (p.X + 0.2 * (after.Layout.White.X - p.X), p.Y + 0.2 * (after.Layout.White.Y - p.Y));
            if (Contours.Contains(shot.Drawing.Area, new(x, y)))
                Assert.True(evaluation.At(after, lines, new(x, y), only: IsMeant).Value > 0.8 * meant);
        }
    }

    private sealed class Teller(Action<PlanProgress> tell) : IProgress<PlanProgress>
    {
        public void Report(PlanProgress value) => tell(value);
    }

    /// <summary>
    /// Common practice, no source. From the same balls a club player's first strokes are plainer: the tip nearer to the middle of the ball
    /// than a tour player's, who can afford more screw and follow; and no harder.
    /// </summary>
    [Fact]
    public void From_the_same_balls_a_club_player_plays_plainer_than_a_tour_player_and_no_harder()
    {
        var random = new Random(15);
        List<Situation> tables = [];
        while (tables.Count < 10)
        {
            List<PlacedBall> balls = [.. Rack.Colours()];
            while (balls.Count < 14)
            {
                var (x, y) = (1.9 + 1.5 * random.NextDouble(), 0.15 + (Width - 0.3) * random.NextDouble());
                if (balls.All(b => b.Gap(new Vec2(x, y)) > 0.02))
                    balls.Add(new(Ball.Red(balls.Count - 5), x, y));
            }
            var white = new Vec2(1.6 + 1.6 * random.NextDouble(), 0.3 + (Width - 0.6) * random.NextDouble());
            if (balls.All(b => b.Gap(white) > 0.02))
                tables.Add(Situation.Create(Layout.OfRest([new(Ball.White, white), .. balls])));
        }
        List<Stroke> Firsts(string skill) =>
            [
                .. tables
                    .Select(t =>
                        BreakAdvice.First(
                            t,
                            Player.OfSkill(skill),
                            Shape,
                            PlanPreferences.Default,
                            Thoroughness.IsLong ? Thought.Full : Thought.Short,
                            isTold: false
                        )
                    )
                    .OfType<Choice>()
                    .Select(c => c.Stroke),
            ];
        var (tour, club) = (Firsts("tour"), Firsts("club"));
        static double OffCentre(Stroke s) => Math.Sqrt(s.HeightTips * s.HeightTips + s.SideTips * s.SideTips);
        Assert.True(club.Average(OffCentre) < tour.Average(OffCentre), $"{club.Average(OffCentre)} {tour.Average(OffCentre)}");
        var (clubPace, tourPace) = (club.Average(s => s.Pace), tour.Average(s => s.Pace));
        Assert.True(clubPace < tourPace + 0.5, $"{clubPace} {tourPace}");
    }
}
