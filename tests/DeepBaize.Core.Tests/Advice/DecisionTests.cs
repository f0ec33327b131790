using DeepBaize.Core.Advice.Decide;
using DeepBaize.Core.Advice.Safety;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Advice;

/// <summary>
/// Safeties, leaves and the call between attack and defence. What they should come to is common practice, no source, where nothing else is
/// named.
/// </summary>
[Trait("Speed", "Slow")]
public class DecisionTests
{
    private static readonly TableShape Shape = new(Conditions.Default);
    private static readonly Player County = Player.OfSkill("county");

    private static Situation Table(double x, double y, params PlacedBall[] reds) =>
        Situation.Create(Layout.OfRest([new(Ball.White, x, y), .. Rack.Colours(), .. reds]));

    private static readonly Lazy<Decision> BreakOff = new(() => Decider.Solve(Table(0.7, 0.75, [.. Rack.Pack()]), County, County, Shape));

    private static Outlook LeaveOf(Situation situation) => new PositionJudge(County, Shape).Of(situation, new(situation.Layout, Shape));

    [Fact]
    public void To_open_a_frame_there_is_the_break_off_and_nothing_else()
    {
        var decision = BreakOff.Value;
        Assert.False(decision.IsSnookered);
        Assert.NotEmpty(decision.Safeties);
        // Thin off an end red, round the table off the side cushion, and back to baulk.
        Assert.All(decision.Safeties, s => Assert.Equal(SafetyIdea.BreakOff, s.Idea));
        Assert.All(decision.Prospects, p => Assert.Equal(ProspectKind.Safety, p.Kind));
        var first = decision.Safeties[0];
        Assert.InRange(first.Aim.Fullness, 0.05, 0.45);
        Assert.Equal([Cushion.Top, Cushion.YellowSide], first.Route.Cushions.Take(2));
        Assert.True(first.Odds.Baulk.Value > 0.5 && first.Odds.Foul.Value < 0.05, $"{first.Odds}");
        // A pot better than even is seldom left: common practice, no source.
        Assert.InRange(first.Odds.PotLeft.Value, 0, 0.35);
        Assert.Equal(decision.Prospects.OrderByDescending(p => p.Value.Value), decision.Prospects);
    }

    [Fact]
    public void A_red_near_the_cushion_is_left_as_much_as_it_goes_in()
    {
        // 10 mm off the cushion, 0.7 m from its corner, the white in the open: common practice, a pot.
        foreach (var gap in (double[])[0.003, 0.01, 0.03])
        {
            var situation = Table(1.6, 0.5, new PlacedBall(Ball.Red(1), 0.7, BallRadius + gap));
            var lines = new PotLines(situation.Layout, Shape);
            var judge = new PositionJudge(County, Shape);
            var leave = judge.Of(situation, lines);
            var slot = situation.Layout.SlotOf(Ball.Red(1));
            var read = new[] { 1.9, 2.2, 2.6, 3, 3.5, 4.5 }.Max(pace =>
                TableReading.ReadOne(situation.Layout, new(slot, Pocket.Yellow), new(0, 0, 0, pace, 3), County, Shape).Chance.Value
            );
            Assert.InRange(read, 0.4, 1);
            // The quick estimate is off by 0.06 as often as not by more.
            Assert.Equal(read, leave.Best.Chance, 0.2);
            // A little screw or follow may make it likelier.
            Assert.InRange(judge.BestChance(situation, lines, leave), read - 0.1, read + 0.15);
        }
    }

    [Fact]
    public void Safeties_are_distinct_and_their_worst_tenth_is_worse_than_their_mean()
    {
        var decision = Decider.Solve(
            Table(0.5, 0.7, new(Ball.Red(1), 2.9, 0.6), new(Ball.Red(2), 3.1, 1.2), new(Ball.Red(3), 3.2, 1.0)),
            County,
            County,
            Shape
        );
        Assert.True(decision.Safeties.Count >= 3);
        Assert.All(decision.Safeties, s => Assert.True(s.Leaves.WorstTenth.Value >= s.Leaves.Mean.Value - 1e-9));
        Assert.All(decision.Safeties, s => Assert.True(s.Odds.RivalChance.Value >= s.Odds.PotLeft.Value / 2));
        // Distinct ideas: no two of one kind at one ball that end together.
        foreach (var (one, k) in decision.Safeties.Select((s, k) => (s, k)))
            Assert.DoesNotContain(decision.Safeties.Skip(k + 1), s =>
                s.Idea == one.Idea
                && s.Aim.Ball == one.Aim.Ball
                && s.Leaves.After.Layout.White.At.DistanceTo(one.Leaves.After.Layout.White.At) < 0.6
            );
    }

    [Fact]
    public void An_open_red_is_gone_for_and_a_hopeless_one_is_not()
    {
        var open = Decider.Solve(
            Table(2.5, 0.7, new(Ball.Red(1), 2.9, 0.5), new(Ball.Red(2), 2.4, 1.3)),
            County,
            County,
            Shape,
            Thoroughness.Quick
        );
        Assert.True(open.Prospects[0].IsAttack, open.Prospects[0].Id);
        Assert.True(open.Prospects[0].Points.Value > 3);
        // Thin, from the far end of the table, for a learner.
        var far = Decider.Solve(
            Table(0.3, 0.3, new(Ball.Red(1), 3.3, 1.2), new(Ball.Red(2), 3.1, 0.4)),
            Player.OfSkill("learner"),
            Player.OfSkill("tour"),
            Shape,
            Thoroughness.Quick
        );
        Assert.False(far.Prospects[0].IsAttack, far.Prospects[0].Id);
    }

    [Fact]
    public void At_the_break_even_chance_pot_and_safety_are_worth_the_same()
    {
        var decision = Decider.Solve(
            Table(1.2, 0.4, new(Ball.Red(1), 3.2, 0.6), new(Ball.Red(2), 2.2, 1.5)),
            County,
            County,
            Shape,
            Thoroughness.Quick
        );
        var attack = decision.Attacks[0].Attack!;
        var (choice, even) = (attack.Choice, attack.BreakEven!.Value);
        var safe = decision.Prospects.First(p => !p.IsAttack).Value.Value;
        Assert.Equal(safe, even * choice.IfScores + (1 - even) * choice.IfMissed, 6);
        // The value of the pot stands on the same line.
        Assert.Equal(choice.Value.Value, choice.Chance * choice.IfScores + (1 - choice.Chance) * choice.IfMissed, 6);
        Assert.Equal(decision.Verdict!.Margin!.Value.Value > 0, choice.Chance > even);
    }

    [Fact]
    public void What_is_left_is_worth_more_the_easier_the_pot_and_nothing_in_a_snooker()
    {
        var easy = LeaveOf(Table(2.5, 0.7, new PlacedBall(Ball.Red(1), 2.9, 0.5)));
        var hard = LeaveOf(Table(0.3, 0.3, new PlacedBall(Ball.Red(1), 3.3, 1.2)));
        var hidden = LeaveOf(Table(0.55, Width / 2, new PlacedBall(Ball.Red(1), 2.95, 0.93)));
        Assert.True(easy.Worth > hard.Worth && hard.Worth > hidden.Worth);
        Assert.True(easy.LeavesPot && hidden.Sight.IsSnookered && !easy.Sight.IsSnookered);
        Assert.True(hidden.Worth < 0);
        Assert.True(LeaveOf(Table(0.3, BallRadius, new PlacedBall(Ball.Red(1), 3.3, 1.2))).Lie.IsTight);
    }

    /// <summary>
    /// All colours left (27), 28 behind: no pot wins by itself, a penalty does. Common practice, no source: lay a snooker.
    /// </summary>
    [Fact]
    public void With_a_penalty_needed_the_verdict_lays_a_snooker()
    {
        var situation = Situation.Create(Layout.OfRest([new(Ball.White, 1.2, 0.4), .. Rack.Colours()]), new() { First = 20, Second = 48 });
        var decision = Decider.Solve(situation, County, County, Shape, Thoroughness.Quick);
        Assert.Equal(1, decision.SnookersRequired);
        Assert.Equal(SafetyIdea.Snooker, decision.Verdict!.Best.Safety?.Idea);
        Assert.Equal("win", decision.Unit);
        Assert.InRange(decision.Verdict.Best.Value.Value, 0.01, 0.2);
        Assert.All(decision.Attacks, a => Assert.True(a.Value.Value < decision.Verdict.Best.Value.Value));
    }

    [Fact]
    public void Everything_stands_in_one_list_by_one_measure_each_with_an_identity()
    {
        var told = new List<Decision>();
        var situation = Table(2.2, 0.6, new PlacedBall(Ball.Red(1), 2.9, 0.5), new PlacedBall(Ball.Red(2), 2.4, 1.3));
        var decision = Decider.Solve(situation, County, County, Shape, Thoroughness.Quick, new Telling(told));
        Assert.Equal(decision.Prospects.OrderByDescending(p => p.Value.Value), decision.Prospects);
        Assert.Equal(decision.Prospects.Count, decision.Prospects.DistinctBy(p => p.Id).Count());
        Assert.All(decision.Prospects, p => Assert.InRange(p.Value.Value, 0, 1));
        Assert.Contains(decision.Prospects, p => p.Kind == ProspectKind.Pot);
        Assert.Contains(decision.Prospects, p => p.Kind == ProspectKind.Safety);
        // Pots first, and no verdict before both have been weighed.
        Assert.All(told.SkipLast(1), d => Assert.Null(d.Verdict));
        Assert.NotNull(decision.Verdict);
        Assert.All(told.First(d => d.Prospects.Count > 0).Prospects, p => Assert.True(p.IsAttack));
        Assert.True(decision.ModelError is > 0.01 and < 0.15);
    }

    private sealed class Telling(List<Decision> told) : IProgress<DecisionProgress>
    {
        public void Report(DecisionProgress value)
        {
            lock (told)
                told.Add(value.Decision);
        }
    }

    [Fact]
    public void A_ball_that_the_white_touches_is_named_and_can_be_played_away_from()
    {
        var situation = Table(2.0, 0.5, new PlacedBall(Ball.Red(1), 2.0 + 2 * BallRadius, 0.5), new PlacedBall(Ball.Red(2), 3.3, 1.6));
        var decision = Decider.Solve(situation, County, County, Shape, Thoroughness.Quick);
        Assert.Equal(Ball.Red(1), decision.Touching);
        // Rule 8, from memory: away from it is fair, though the white meets nothing; on to it is a push.
        var away = decision.Safeties.Where(s => s.Aim.Ball == Ball.Red(1)).ToList();
        Assert.NotEmpty(away);
        Assert.All(away, s =>
        {
            Assert.True(s.Aim.IsAway);
            Assert.True(
                Math.Abs(s.Aim.Stroke.AimDegrees - 180) < 90 && s.Odds.Foul.Value < 0.2,
                $"{s.Aim.Stroke.AimDegrees}° {s.Odds.Foul}"
            );
        });
        Assert.All(decision.Safeties.Where(s => s.Aim.Ball != Ball.Red(1)), s => Assert.False(s.Aim.IsAway));
    }

    [Fact]
    public void With_an_edge_hidden_pots_and_straight_safeties_stand_beside_the_escapes()
    {
        // The brown hides one edge of the only red; the rest of it can be hit straight, and potted.
        var red = new PlacedBall(Ball.Red(1), 2.6, 0.45);
        var white = new Vec2(2.1, 0.75);
        var brown = new PlacedBall(Ball.Brown, 2.3, 0.75 - 0.12 + 2 * BallRadius - 0.096);
        var situation = Situation.Create(
            Layout.OfRest([new(Ball.White, white), .. Rack.Colours().Where(c => c.Ball != Ball.Brown), brown, red])
        );
        Assert.True(situation.IsSnookered);
        var decision = Decider.Solve(situation, County, County, Shape, Thoroughness.Quick);
        Assert.NotEmpty(decision.Safeties);
        Assert.NotEmpty(decision.Escapes);
        Assert.All(decision.Safeties.Where(s => s.Aim.Ball == Ball.Red(1)), s => Assert.InRange(s.Aim.Seen, 0.01, 0.99));
        // A hit that goes straight is no way round anything: what swerves could not have gone straight.
        Assert.All(decision.Escapes.Where(e => e.Way.Swerves), e => Assert.True(e.Aim.Stroke.ElevationDegrees > 5));
    }

    [Theory]
    [InlineData(50, 51)]
    [InlineData(50, 56)]
    public void At_the_last_black_an_easy_pot_is_the_frame(int first, int second)
    {
        // Rule 4, from memory: seven points and nothing left, whoever was a few behind.
        var black = Spot(Ball.Black);
        var situation = Situation.Create(
            Layout.OfRest([new(Ball.White, black.X - 0.1, black.Y - 0.22), new(Ball.Black, black)]),
            new() { First = first, Second = second }
        );
        var verdict = Decider.Solve(situation, County, County, Shape, Thoroughness.Quick).Verdict;
        Assert.InRange(verdict!.WithPot!.Value.Value, 0.9, 1);
    }

    [Fact]
    public void What_is_told_of_a_safety_is_what_other_strokes_come_to()
    {
        // Played anew with plain random errors: value and chances within four standard errors.
        var situation = Table(1.2, 0.4, new(Ball.Red(1), 3.2, 0.6), new(Ball.Red(2), 2.2, 1.5));
        var prospect = Decider.Solve(situation, County, County, Shape).Prospects.First(p => p.Safety is not null);
        var safety = prospect.Safety!;
        var context = new SearchContext(new(situation.Frame, County, Shape, PlanPreferences.Default), new(1), default);
        var (workspace, random, values, fouls) = (new Workspace(context), new Random(5), new List<double>(), 0);
        const int strokes = 400;
        var skill = County.Skill.Times(safety.Aim.Reach.ErrorFactor);
        var scatter = Scatter.Of(situation.Layout, safety.Aim.Stroke, skill, Shape);
        for (var i = 0; i < strokes; i++)
        {
            var played = workspace.Play(situation, safety.Aim.Stroke, scatter.Error(StandardDraws.Draw(random)), safety.Aim.Ball);
            var lines = workspace.LinesOf(played.Leaves.Layout);
            var leave = context.Judge.Of(played.Leaves, lines);
            // The best pot left is looked for by strokes, for every one of them.
            if (played.Ruling.Points == 0)
                leave = leave.WithChance(context.Judge.BestChance(played.Leaves, lines, leave), played.Leaves.Frame.ValueOn);
            values.Add(context.Objective.Of(played.Leaves.Frame, leave));
            fouls += played.Ruling.IsFoul ? 1 : 0;
        }
        var mean = values.Average();
        var error2 = values.Sum(v => (v - mean) * (v - mean)) / strokes / strokes;
        Assert.Equal(mean, prospect.Value.Value, 4 * Math.Sqrt(error2 + Math.Pow(prospect.Value.Error, 2)));
        Assert.Equal((double)fouls / strokes, safety.Odds.Foul.Value, 4 * Math.Sqrt(0.25 / strokes + Math.Pow(safety.Odds.Foul.Error, 2)));
    }

    [Fact]
    public void In_hand_the_white_is_placed_where_the_best_stroke_is_on()
    {
        // The user has laid it where the brown hides the red; from the other end of the D it is open.
        var hidden = Situation.Create(
            Layout.OfRest([new(Ball.White, 0.6, Width / 2), .. Rack.Colours(), new(Ball.Red(1), 1.3, Width / 2)]),
            new() { InHand = true }
        );
        var decision = Decider.Solve(hidden, County, County, Shape, Thoroughness.Quick);
        var white = decision.White!.Value;
        Assert.True(InD(white) && white != hidden.Layout.White.At);
        // Not on both its edges perhaps, but enough of it for the pot that is told.
        Assert.True(PositionJudge.SeenOf(hidden.WithWhiteAt(white), hidden.Layout.Balls.Count - 1).Share > 0.3);
        Assert.NotEmpty(decision.Attacks);
        Assert.Null(Decider.Solve(Table(0.6, 0.9, new PlacedBall(Ball.Red(1), 1.3, 0.5)), County, County, Shape, Thoroughness.Quick).White);
    }

    /// <summary>
    /// Black tight on the top cushion, straight in line: struck full and low without side, the white comes back to baulk and the black
    /// stays within a few ball widths; a touch of side spoils it.
    /// </summary>
    [Fact]
    public void A_double_kiss_brings_the_white_back_to_baulk_and_a_touch_of_side_spoils_it()
    {
        var y = 0.9;
        (double White, double Beside, double Black) After(double side)
        {
            var simulator = new Simulator(Shape);
            simulator.Place([new(Ball.White, 2.4, y), new(Ball.Black, Length - BallRadius, y)]);
            simulator.Play(new Stroke(0, side, -0.9, Pace.OfCueSpeed(2.31), 0).ToStrike());
            return (
                simulator.X(0),
                Math.Abs(simulator.Y(0) - y),
                Math.Sqrt(Math.Pow(simulator.X(1) - (Length - BallRadius), 2) + Math.Pow(simulator.Y(1) - y, 2))
            );
        }
        var straight = After(0);
        Assert.InRange(straight.White, 0, BaulkLineX);
        Assert.InRange(straight.Black, 0, 4 * BallRadius);
        Assert.InRange(straight.Beside, 0, BallRadius);
        var touched = After(0.3);
        Assert.True(touched.Beside > 0.3);
        Assert.True(touched.Black > straight.Black + BallRadius);
    }

    [Fact]
    public void In_hand_the_safeties_choose_a_place_of_their_own_in_the_D()
    {
        // The blue hangs over a middle pocket, best potted from the left of the D; the reds are safest from elsewhere.
        var layout = Layout.OfRest([
            new(Ball.White, BaulkLineX - 0.1, Width / 2),
            .. Rack.Colours(),
            new(Ball.Red(1), 1.7, 0.12),
            new(Ball.Red(2), 3.2, 1.5),
            new(Ball.Red(3), 2.4, 0.4),
        ]);
        var inHand = Situation.Create(layout, new() { InHand = true });
        var decision = Decider.Solve(inHand, County, County, Shape, Thoroughness.Gate(2));
        var (pots, safe) = (decision.White!.Value, decision.SafetyWhite!.Value);
        Assert.True(InD(pots) && InD(safe));
        Assert.NotEqual(pots, safe);
        // As well as from where the pot is best, or better.
        var fromPot = Situation.Create(inHand.WithWhiteAt(pots).Layout);
        var there = Decider.Solve(fromPot, County, County, Shape, Thoroughness.Gate(2));
        var (here, elsewhere) = (decision.Prospects.First(p => !p.IsAttack).Value, there.Prospects.First(p => !p.IsAttack).Value);
        Assert.True(here.Value > elsewhere.Value || here.IsLevelWith(elsewhere), $"{here} against {elsewhere}");
    }

    [Fact]
    public void A_ball_that_comes_back_to_the_white_is_a_double_kiss_and_no_cover()
    {
        // The black tight on the top cushion, straight in line: full, low and centre ball (common practice, no source).
        var tight = Layout.OfRest([new(Ball.White, 2.3, Width / 2), new(Ball.Black, Length - BallRadius - 1e-6, Width / 2)]);
        var situation = Situation.Create(
            tight,
            new()
            {
                On = BallOn.Black,
                First = 60,
                Second = 60,
            }
        );
        var context = new SearchContext(new(situation.Frame, County, Shape, PlanPreferences.Default), Thoroughness.Gate(2), default);
        var safeties = new SafetySearch(context).Find(situation);
        var doubles = safeties.Where(s => s.Route.Balls.Count > 0).ToList();
        Assert.NotEmpty(doubles);
        Assert.All(safeties, s => Assert.NotEqual(SafetyIdea.Cannon, s.Idea));
        Assert.Contains(doubles, s => s.Idea == SafetyIdea.DoubleKiss);
        // What a touch of side spoils is told with it, and with nothing else.
        Assert.All(safeties, s => Assert.Equal(s.Idea == SafetyIdea.DoubleKiss, s.PotLeftWithSide is not null));
    }

    /// <summary>
    /// From frames played out: struck as high as the tip may go, a double kiss has no room for the touch of side that is tried with it.
    /// </summary>
    [Fact]
    public void A_double_kiss_with_the_tip_at_its_limit_is_told_like_any_other()
    {
        var situation = Situation.Create(
            Layout.OfRest([
                new(Ball.White, 1.3298030596354586, 0.9094989736946419),
                new(Ball.Black, 0.15308005963310067, 0.4190939578812602),
            ]),
            new()
            {
                On = BallOn.Black,
                First = 54,
                Second = 54,
            }
        );
        Assert.NotEmpty(Decider.Solve(situation, County, County, Shape, new(1) { WorkShare = 0.1 }).Prospects);
    }

    /// <summary>Nothing is easier, from wherever the white comes: common practice, no source.</summary>
    [Theory]
    [InlineData(0.116, 0.11)]
    [InlineData(1, 0.9)]
    [InlineData(0.5, 0.05)]
    [InlineData(3.2, 0.3)]
    [InlineData(0.3, 1.6)]
    public void A_ball_that_hangs_between_a_corners_jaws_is_the_first_thing_to_play(double x, double y)
    {
        PlacedBall[] balls = [new(Ball.White, x, y), new(Ball.Pink, 0.008, -0.002), new(Ball.Black, 2.486, 0.666)];
        var situation = Situation.Create(Layout.OfRest(balls), new() { On = BallOn.Pink });
        var read = TableReading.Read(situation.Layout, new(0, 0, 0, 4, 3), County, Shape);
        Assert.Equal(Ball.Pink, read[0].Cut.ObjectBall);
        Assert.True(read[0].Chance.Value > 0.95, $"{read[0].Chance}");
        var best = Decider.Solve(situation, County, County, Shape, Thoroughness.Gate(2)).Prospects[0];
        Assert.Equal(ProspectKind.Pot, best.Kind);
    }

    /// <summary>Common practice, no source: on any table with a red in sight these come to mind first.</summary>
    [Fact]
    public void The_plain_safeties_are_named_as_they_are_meant()
    {
        Situation[] tables =
        [
            Table(0.5, 0.6, new(Ball.Red(1), 2.9, 0.35), new(Ball.Red(2), 1.1, 0.75), new(Ball.Red(3), 3.2, 1.5)),
            Table(1.3, 0.5, new PlacedBall(Ball.Red(1), 1.0, 0.8)),
        ];
        var context = new SearchContext(new(Frame.Start, County, Shape, PlanPreferences.Default), Thoroughness.Gate(2), default);
        var strokes = new SafetyStrokes(context);
        var workspace = new Workspace(context);
        var ideas = tables
            .SelectMany(from => strokes.Ways(from).SelectMany(w => strokes.Play(workspace, from, w.Slot, w.Offset)))
            .Select(t => (Idea: PlainIdeas.Of(t), Tried: t))
            .Where(t => t.Idea is not null)
            .ToLookup(t => t.Idea!.Value, t => t.Tried);
        foreach (var idea in (PlainIdea[])[PlainIdea.ThinClip, PlainIdea.RollUp, PlainIdea.BehindColour, PlainIdea.ToCushion])
            Assert.True(ideas[idea].Any(), $"{idea}");
        Assert.All(ideas[PlainIdea.ThinClip], t => Assert.True(t.Played.Leaves.Layout.White.X < BaulkLineX && Math.Abs(t.Offset) > 0.7));
        Assert.All(ideas[PlainIdea.BehindColour], t => Assert.True(t.Leave.Sight.HiddenBy!.Value.IsColour));
    }
}
