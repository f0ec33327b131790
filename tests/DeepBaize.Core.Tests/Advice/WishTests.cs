using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Advice;

/// <summary>What a player wishes of a plan is kept by every shot as it is meant, and which ball to play for is answered.</summary>
[Trait("Speed", "Slow")]
public class WishTests
{
    private static readonly TableShape Shape = new(Conditions.Default);
    private static readonly Player County = Player.OfSkill("county");

    /// <summary>Open tables with the white near a red, one for each seed.</summary>
    private static Situation OpenTable(int seed)
    {
        var random = new Random(seed);
        List<PlacedBall> balls = [.. Rack.Colours()];
        while (balls.Count < 12)
        {
            var at = new Geometry.Vec2(2.0 + 1.4 * random.NextDouble(), 0.15 + 1.48 * random.NextDouble());
            if (balls.All(b => b.Gap(at) > 0.05))
                balls.Add(new(Ball.Red(balls.Count - 5), at.X, at.Y));
        }
        Geometry.Vec2 white;
        do white = new(1.9 + 1.2 * random.NextDouble(), 0.3 + 1.2 * random.NextDouble());
        while (balls.Any(b => b.Gap(white) < 0.08));
        return Situation.Create(Layout.OfRest([new(Ball.White, white), .. balls]), new());
    }

    private static PlanProgress Solve(Situation from, PlanPreferences wishes) =>
        BreakPlanner.Solve(from, wishes, County, Shape, Thoroughness.Gate(2));

    private static IEnumerable<(PlanShot Shot, ShotRecord Record)> Played(PlanProgress plan)
    {
        foreach (var shot in plan.Plans.SelectMany(p => p.Shots))
        {
            var record = new ShotRecord();
            shot.Choice.Stroke.Play(new(Shape), shot.Before.Layout, record);
            yield return (shot, record);
        }
    }

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public void No_cushion_soft_only_and_keep_off_hold_for_every_shot_as_it_is_meant(int seed)
    {
        var from = OpenTable(seed);
        var off = Ball.Blue;
        var plan = Solve(from, PlanPreferences.Default with { NoCushion = true, SoftOnly = true, KeepOff = [off] });
        foreach (var (shot, record) in Played(plan))
        {
            Assert.DoesNotContain(record.Events, e => e is { Ball: 0, Kind: ShotEventKind.Cushion or ShotEventKind.Jaw });
            Assert.True(shot.Choice.Stroke.Pace <= PlanPreferences.SoftPace, $"pace {shot.Choice.Stroke.Pace}");
            var slot = shot.Before.Layout.SlotOf(off);
            if (shot.Choice.Pot.Struck != slot)
                Assert.DoesNotContain(record.Events, e => e.IsOfWhiteWithBall && e.Ball + e.Other == slot);
        }
        // Without the wishes the same tables are played off cushions, or harder: the wishes are what does it.
        if (seed == 1)
            Assert.Contains(Played(Solve(from, PlanPreferences.Default)), p =>
                p.Shot.Choice.Stroke.Pace > PlanPreferences.SoftPace || p.Shot.Choice.Route.Cushions.Count > 0
            );
    }

    [Theory]
    [InlineData(4)]
    [InlineData(5)]
    public void The_ball_that_is_wished_for_is_next_and_is_played(int seed)
    {
        var from = OpenTable(seed);
        foreach (var next in new[] { Ball.Pink, Ball.Blue })
        {
            var plan = Solve(from, PlanPreferences.Default with { Next = next });
            foreach (var one in plan.Plans)
            {
                var after = one.Shots[0].Choice;
                Assert.Equal(next, after.Leaves.Layout.Balls[after.Next.Pot!.Value.Line.Slot].Ball);
                if (one.Shots.Count > 1)
                    Assert.Equal(next, one.Shots[1].Choice.Nominated);
            }
            Assert.NotEmpty(plan.Plans);
        }
    }

    [Fact]
    public void For_a_ball_that_cannot_be_potted_from_anywhere_there_is_no_plan()
    {
        // The pink is shut in at the top cushion by three reds; a red beside the white is easy.
        var from = Situation.Create(
            Layout.OfRest([
                new(Ball.White, 2.6, 0.6),
                .. Rack.Colours().Where(c => c.Ball != Ball.Pink),
                new(Ball.Pink, Length - BallRadius, 0.6),
                new(Ball.Red(1), Length - BallRadius, 0.6 - 0.053),
                new(Ball.Red(2), Length - BallRadius, 0.6 + 0.053),
                new(Ball.Red(3), Length - BallRadius - 0.053, 0.6),
                new(Ball.Red(4), 3.0, 0.4),
            ]),
            new()
        );
        Assert.NotEmpty(Solve(from, PlanPreferences.Default).Plans);
        Assert.Empty(Solve(from, PlanPreferences.Default with { Next = Ball.Pink }).Plans);
    }

    [Fact]
    public void Balls_left_for_later_are_not_potted_while_another_is_on()
    {
        var from = OpenTable(6);
        var usual = Solve(from, PlanPreferences.Default).Plans[0].Shots[0].Choice.Nominated;
        Assert.True(usual.IsRed);
        var plan = Solve(from, PlanPreferences.Default with { Later = [usual, Ball.Black] });
        Assert.NotEmpty(plan.Plans);
        Assert.All(plan.Plans.SelectMany(p => p.Shots), s => Assert.DoesNotContain(s.Choice.Nominated, new[] { usual, Ball.Black }));
    }

    [Fact]
    public void Where_only_balls_left_for_later_are_on_they_are_played_all_the_same()
    {
        var from = Situation.Create(Layout.OfRest([new(Ball.White, 1.02, 0.74), .. Rack.Colours()]), new());
        var plan = Solve(from, PlanPreferences.Default with { Later = [Ball.Yellow] });
        Assert.Equal(Ball.Yellow, plan.Plans[0].Shots[0].Choice.Nominated);
    }

    [Theory]
    [InlineData(BallOn.Red, "pink", true)]
    [InlineData(BallOn.Red, "red-2", false)]
    [InlineData(BallOn.Colour, "red-2", true)]
    [InlineData(BallOn.Colour, "pink", false)]
    public void Only_a_ball_that_can_be_next_may_be_wished_for(BallOn on, string next, bool may)
    {
        var from = OpenTable(7);
        from = Situation.Create(from.Layout, new() { On = on });
        Assert.True(Ball.TryParse(next, out var ball));
        var wishes = PlanPreferences.Default with { Next = ball };
        if (may)
            Assert.Equal(ball, wishes.Checked(from).Next);
        else
            Assert.Equal("preferences.next", Assert.Throws<InputException>(() => wishes.Checked(from)).Errors[0].Field);
    }

    [Fact]
    public void Each_ball_worth_playing_for_has_a_stroke_that_leaves_it_on()
    {
        var from = OpenTable(8);
        var answer = NextBalls.Find(from, PlanPreferences.Default, County, Shape, new Workers(Thoroughness.Gate(2), default));
        Assert.True(answer.Balls.Count >= 2);
        Assert.Equal(answer.Balls.Count, answer.Balls.Select(b => b.Ball).Distinct().Count());
        Assert.Equal(answer.Balls.OrderByDescending(b => b.Value.Value), answer.Balls);
        foreach (var ball in answer.Balls)
        {
            Assert.True(ball.Ball.IsColour);
            Assert.True(ball.IsOn.Value <= ball.AnyOn.Value + 1e-9 && ball.AnyOn.Value <= ball.Pots.Value + 1e-9);
            // The stroke as it is meant pots its ball, and the ball can be potted from where the white stops.
            var (simulator, record) = (new Simulator(Shape), new ShotRecord());
            ball.Stroke.Play(simulator, from.Layout, record);
            var leaves = from.Play(simulator, record, ball.Target.Nominated, Shape).Leaves;
            Assert.True(leaves.Frame.Break > 0);
            var lines = new PotLines(leaves.Layout, Shape);
            Assert.Contains(lines.Lines.ToArray(), l =>
                lines.BallIn(l.Slot) == ball.Ball && lines.From(l, leaves.Layout.White.At, County.Skill) is { Chance: > 0.4 }
            );
        }
    }

    /// <summary>A stroke that just reaches its place minds the pace; a short straight pot with nothing to do minds it little.</summary>
    [Fact]
    public void A_study_tells_the_likelier_miss_the_knob_that_matters_and_the_cannon()
    {
        var plan = Solve(OpenTable(9), PlanPreferences.Default);
        foreach (var (shot, record) in Played(plan))
        {
            var study = shot.Study!;
            if (study.Miss is { } miss)
                Assert.InRange(miss.Share.Value, 0, 1 - shot.Choice.Chance + 0.15);
            if (study.Window is { } window)
            {
                Assert.True(window is { Down: >= 0, Up: >= 0, Error: > 0 });
                // Within the window, and alone, an error of the pace leaves the shot whole; that is what a window is.
                if (window.Knob == Knob.Pace && window.Up > 0)
                    Assert.True(Scores(shot, shot.Choice.Stroke with { Pace = shot.Choice.Stroke.Pace + 0.95 * window.Up }));
            }
            var meets = shot.Choice.Route.Balls.Count > 0 && shot.Choice.Route.Balls[0] != shot.Choice.Pot.Struck;
            Assert.Equal(meets, study.Cannon is not null);
            if (study.Cannon is not { } cannon)
                continue;
            Assert.Contains(record.Events, e => e.IsOfWhiteWithBall && shot.Before.Layout.Balls[e.Ball + e.Other].Ball == cannon.Ball);
            Assert.InRange(cannon.Fullness, 0, 1);
            Assert.True(cannon.Speed > 0 && cannon.Hit.Value > 0.2);
        }
    }

    /// <summary>A red lies in the black's way to a corner; it is potted, or it is moved by a stroke that pots another.</summary>
    [Theory]
    [InlineData("red-2", ReasonCode.Frees)]
    [InlineData("red-1", ReasonCode.KnocksFree)]
    public void A_way_is_freed_by_the_pot_or_knocked_free(string potted, ReasonCode code)
    {
        Assert.True(Ball.TryParse(potted, out var ball));
        var black = Spot(Ball.Black);
        var corner = new Geometry.Vec2(Length, Width);
        var inTheWay = (black + corner) / 2;
        PlacedBall red1 = new(Ball.Red(1), 2.98, 0.47),
            red2 = new(Ball.Red(2), inTheWay.X, inTheWay.Y),
            moved = new(Ball.Red(2), 3.0, 1.25);
        var before = Situation.Create(Layout.OfRest([new(Ball.White, 2.6, 0.9), .. Rack.Colours(), red1, red2]), new());
        var after = Layout.OfRest([new(Ball.White, 2.9, 0.9), .. Rack.Colours(), .. ball == Ball.Red(2) ? [red1] : (PlacedBall[])[moved]]);
        var pot = new Pot(before.Layout.SlotOf(ball), Pocket.GreenTop);
        // What came of the stroke is made up; how it is told is what is asked.
        var stroke = new Stroke(0, 0, 0, 3, 3);
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        stroke.Play(simulator, before.Layout, record);
        var outcome = before.Play(simulator, record, ball, Shape) with
        {
            Leaves = Situation.Create(
                after,
                new()
                {
                    On = BallOn.Colour,
                    First = 1,
                    Break = 1,
                }
            ),
        };
        var choice = new Core.Search.Choice(
            new(pot, ball, Cut.Of(before.Layout, pot, Shape)),
            stroke,
            Reach.Of(before.Layout, stroke, County),
            default,
            default,
            1,
            outcome,
            Quality.None
        )
        {
            Route = new([], []),
        };
        PotLines linesBefore = new(before.Layout, Shape),
            linesAfter = new(after, Shape);
        var shot = new PlanShot(before, choice, default, 1, new(null, [], []), new(default!, default!), [], [])
        {
            RedsBefore = RedSpread.Of(before.Layout, linesBefore),
            RedsAfter = RedSpread.Of(after, linesAfter),
        };
        var none = new CoverOutcome(default, false, null, null, 0);
        var reasons = Reasons.Of(shot with { Cover = new(none, none) }, linesBefore, linesAfter, null);
        Assert.Contains(reasons, r => r.Code == code && r.Ball == Ball.Black && r.Pocket == Pocket.GreenTop);
        Assert.DoesNotContain(reasons, r => r.Code is ReasonCode.Frees or ReasonCode.KnocksFree && r.Code != code && r.Ball == Ball.Black);
    }

    private static bool Scores(PlanShot shot, Stroke stroke)
    {
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        stroke.Play(simulator, shot.Before.Layout, record);
        return shot.Before.Play(simulator, record, shot.Choice.Nominated, Shape).Ruling.Points > 0;
    }

    /// <summary>Aimed at the middle of a ball it is met full, at its edge half-ball: by the geometry of the contact.</summary>
    [Fact]
    public void How_full_a_second_ball_is_met_follows_from_the_contact()
    {
        var red = new PlacedBall(Ball.Red(1), Length / 2, 0.06);
        foreach (var (pink, fullness) in new[] { (0.0, 1.0), (0.02625, 0.5) })
        {
            var layout = Layout.OfRest([
                new(Ball.White, 1.0, Width / 2),
                red,
                .. Rack.Colours().Where(c => c.Ball != Ball.Pink && c.Ball != Ball.Blue && c.Ball != Ball.Brown),
                new(Ball.Brown, 0.3, 1.6),
                new(Ball.Blue, 0.3, 0.2),
                new(Ball.Pink, 2.2, Width / 2 + pink),
            ]);
            var record = new ShotRecord();
            new Stroke(0, 0, 0, 4, 0).Play(new(Shape), layout, record);
            var hit = record.Events.First(e => e.IsOfWhiteWithBall);
            Assert.Equal(fullness, ShotStudy.FullnessAt(record, hit, hit.Ball + hit.Other), 0.01);
        }
    }
}
