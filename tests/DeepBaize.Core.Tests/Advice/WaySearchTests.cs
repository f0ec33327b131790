using DeepBaize.Core.Advice.Position;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Tests.Advice;

[Trait("Speed", "Slow")]
public class WaySearchTests
{
    private static readonly TableShape Shape = new(Conditions.Default);
    private static readonly Player County = Player.OfSkill("county");

    /// <summary>
    /// An angled pot into the middle pocket, and beyond it a row of six balls across the white's way: from the follow line to the screw
    /// line.
    /// </summary>
    private static readonly string[] Row = ["yellow", "green", "brown", "blue", "pink", "black"];

    private static readonly Layout Ladder = Layout.Create(
        [
            ("white", 1.293, 1.10),
            ("red-1", 1.6, 1.35),
            ("yellow", 2.27, 1.315),
            ("green", 2.27, 1.245),
            ("brown", 2.26, 1.175),
            ("blue", 2.24, 1.107),
            ("pink", 2.205, 1.045),
            ("black", 2.16, 0.99),
        ],
        Shape
    );

    private static readonly Layout Open = Layout.Create([("white", 2.72, 1.05), ("red-1", 2.95, 0.50), ("pink", 2.40, 1.30)], Shape);
    private static Pot OpenPot => new(Open.SlotOf(Ball.Red(1)), Pocket.YellowTop);

    private static IReadOnlyList<Way> Climb(string ball, Freedom freedom)
    {
        Ball.TryParse(ball, out var wanted);
        var pot = new Pot(Ladder.SlotOf(Ball.Red(1)), Pocket.GreenMiddle);
        return WaySearch.Solve(
            new(Ladder, pot, Cannon.Create(Ladder.SlotOf(wanted), pot), new(0, 0, 0, 5, 0), County, Shape),
            freedom,
            Workers.Shared()
        );
    }

    [Fact]
    public void On_the_height_ladder_every_ball_of_the_row_is_reached_by_height_and_one_step_of_pace()
    {
        // Common practice, no source: the spin ladder. No side, pace 5 ± 1.
        foreach (var ball in Row)
        {
            var best = Climb(ball, new(-1.3, 1.3, 0, 4, 6, false))[0];
            Assert.True(best.Ends.IsMet && best.Odds.Both.Value > 0.5, $"{ball}: {best.Odds.Both}");
            Assert.Equal(0, best.Stroke.SideTips);
        }
    }

    /// <summary>
    /// From high on the black into the pack: how likely the white sticks there is what other errors come to, and what is freed has its way,
    /// by distances of the other balls from it, and had none.
    /// </summary>
    [Fact]
    public void Running_into_the_pack_says_whether_the_white_sticks_and_which_reds_are_open_where()
    {
        var layout = Layout.OfRest([new(Ball.White, 2.98, 1.14), new(Ball.Black, Dimensions.Spot(Ball.Black)), .. Rack.Pack()]);
        var pot = new Pot(layout.SlotOf(Ball.Black), Pocket.YellowTop);
        var corner = layout.Balls.Where(b => b.Ball.IsRed).MaxBy(b => b.X + b.Y).Ball;
        var ways = WaySearch.Solve(
            new(layout, pot, Cannon.Create(layout.SlotOf(corner), pot), new(0, 0, 0, 5, 3), County, Shape),
            Freedom.Full,
            Workers.Shared()
        );
        var into = ways.Where(w => w.Run.Into is not null).ToList();
        Assert.NotEmpty(into);
        var freed = 0;
        foreach (var way in into)
        {
            var simulator = new Simulator(Shape, Simulator.Coarse);
            var told = way.Run.Into!;
            var scatter = Scatter.Of(layout, way.Stroke, County.Skill.Times(way.Run.Reach.ErrorFactor), Shape, pot);
            var (record, stays) = (new ShotRecord(), new List<bool>());
            for (var i = 0; i < 512; i++)
            {
                scatter.Error(ErrorStream.Named("test: sticks").At(i)).Play(simulator, layout, way.Stroke, record);
                // Where the two met, and where the white is in the end.
                var met = record.Events.FirstOrDefault(e => e.IsOfWhiteWithBall && e.Ball + e.Other != pot.Slot);
                var at = met == default ? default : record.Pieces.Last(p => p.Ball == 0 && p.End <= met.Time + 1e-9).To;
                stays.Add(
                    met != default
                        && met.Ball + met.Other == told.Slot
                        && simulator.IsOnTable(0)
                        && simulator.At(0).DistanceTo(at) < RunsInto.Near
                );
            }
            var own = Sums.Of(stays, s => s ? 1 : 0).Mean;
            Assert.Equal(own.Value, told.Sticks!.Value.Value, 4 * (own.Error + told.Sticks.Value.Error) + 0.01);

            way.Stroke.Play(simulator, layout);
            var after = simulator.Left(except: pot.Slot);
            double Closest(IEnumerable<PlacedBall> others, PlacedBall ball, Pocket pocket) =>
                others
                    .Where(b => b.Ball != ball.Ball)
                    .Min(b => new Geometry.Segment(ball.At, Shape.PocketShapes[(int)pocket].Drop.Centre).DistanceTo(b.At));
            foreach (var (ball, pockets) in told.Freed)
            {
                freed++;
                var (was, now) = (layout.Balls[layout.SlotOf(ball)], after.Single(b => b.Ball == ball));
                // A way ends anywhere in the drop, not at its centre: beside the straight line to that there may be a ball half in the way.
                Assert.All(pockets, p => Assert.True(Closest(after.Skip(1), now, p) > Dimensions.BallRadius, $"{ball} {p}"));
                Assert.All(Enum.GetValues<Pocket>(), p => Assert.True(Closest(layout.Balls.Skip(1), was, p) < 2.2 * Dimensions.BallRadius));
            }
        }
        Assert.True(freed > 0);
    }

    /// <summary>
    /// A thin pot leaves the white nearly all its pace: it is brought round by two cushions, with the side that widens it off the first
    /// (common practice, no source).
    /// </summary>
    [Fact]
    public void From_a_thin_angle_two_cushions_with_running_side_are_among_the_ways()
    {
        var thin = Layout.Create([("white", 2.41, 0.32), ("red-1", 3.2, 0.45)], Shape);
        var pot = new Pot(thin.SlotOf(Ball.Red(1)), Pocket.YellowTop);
        Assert.True(Math.Abs(Cut.Of(thin, pot, Shape).CutDegrees) > 60);
        var ways = WaySearch.Solve(
            new(thin, pot, StopIn.Create(2.0, 1.3, 0.2), new(0, 0, 0, 4, 3), County, Shape),
            Freedom.Full,
            Workers.Shared()
        );
        // Up the table on to the top cushion, left-hand side takes the white on towards the green's side.
        var found = ways.First(w => w.Run.Route.Cushions is [Cushion.Top, Cushion.GreenSide]);
        Assert.True(found.Ends.IsMet && found.Stroke.SideTips < -0.2, $"{found.Stroke.SideTips}");
    }

    [Fact]
    public void At_one_pace_the_heights_of_the_ladder_come_in_order()
    {
        // Common practice, no source: changing only the tip's height, from follow for the first ball to screw for the last.
        var heights = Row.Select(ball => Climb(ball, new(-1.3, 1.3, 0, 3.8, 3.8, false)).First(w => w.Ends.IsMet).Stroke.HeightTips)
            .ToList();
        Assert.Equal(heights.OrderDescending(), heights);
        Assert.True(heights[0] > 0.3 && heights[^1] < -0.7);
    }

    [Fact]
    public void What_it_finds_does_what_it_says_when_played()
    {
        var goal = StopIn.Create(2.4, 0.5, 0.15);
        var ways = WaySearch.Solve(new(Open, OpenPot, goal, new(0, 0, 0, 5, 0), County, Shape), Freedom.Full, Workers.Shared());
        Assert.InRange(ways.Count, 3, 6);
        Assert.All(ways, w => Assert.True(w.Odds.Both.Value <= ways[0].Odds.Both.Value || w.Odds.Both.IsLevelWith(ways[0].Odds.Both)));
        foreach (var way in ways)
        {
            var simulator = new Simulator(Shape);
            simulator.Place(Open.AsSpan());
            simulator.Play(way.Stroke.ToStrike());
            Assert.Equal(Pocket.YellowTop, simulator.PocketOf(OpenPot.Slot));
            Assert.True(
                Math.Sqrt(Math.Pow(simulator.X(0) - goal.Area.X, 2) + Math.Pow(simulator.Y(0) - goal.Area.Y, 2)) <= goal.Area.Radius
            );
            Assert.True(way.Ends.IsMet && way.Odds.Both.Value <= way.Odds.Pot.Value);
            // Sampled anew with other luck, the chance is the same within four standard errors. Eight nets know their own error roughly,
            // and sampling ends where it looks small: it is taken as no less than half of what plain strokes have.
            var cut = Cut.Of(Open, OpenPot with { Part = way.Part }, Shape);
            var again = Spread.Sample(
                new(Open, way.Stroke, cut, County.Skill.Times(way.Run.Reach.ErrorFactor), Shape, goal),
                Workers.Shared(),
                SpreadEffort.Of(2048),
                ErrorStream.Named("anew")
            );
            static double ErrorOf(Estimate e) => Math.Max(e.Error, 0.5 * Math.Sqrt(e.Value * (1 - e.Value) / e.Strokes));
            var error = Math.Sqrt(Math.Pow(ErrorOf(again.Odds.Both), 2) + Math.Pow(ErrorOf(way.Odds.Both), 2));
            Assert.Equal(again.Odds.Both.Value, way.Odds.Both.Value, 4 * error);
        }
        // Distinct: no two do the same with about the same stroke.
        Assert.All(
            ways,
            a =>
                Assert.DoesNotContain(
                    ways,
                    b =>
                        !ReferenceEquals(a, b)
                        && a.Run.Route.Key == b.Run.Route.Key
                        && Math.Abs(a.Stroke.HeightTips - b.Stroke.HeightTips) < 0.4
                        && Math.Abs(a.Stroke.Pace - b.Stroke.Pace) < 0.8
                )
        );
        Assert.Contains(ways, w => w.Run.Route.Cushions.Count == 1);
        Assert.Contains(ways, w => w.Run.Route.Cushions.Count >= 2);
    }

    [Fact]
    public void It_beats_every_stroke_of_a_plain_grid_at_its_own_goal()
    {
        // Brute force: plain ball, every height and pace on a grid, each judged by the same sampling.
        var goal = StopIn.Create(2.4, 0.5, 0.15);
        var cut = Cut.Of(Open, OpenPot, Shape);
        var grid = 0.0;
        for (var height = -1.2; height <= 1.2; height += 0.3)
            for (var pace = 3.0; pace <= 8; pace += 0.5)
            {
                var stroke = new Stroke(0, 0, height, pace, 0);
                if (PotAim.Find(Open, cut, stroke, Shape) is not { } aim)
                    continue;
                stroke = stroke with { AimDegrees = aim };
                var factor = Reach.Of(Open, stroke, Player.Default).ErrorFactor;
                grid = Math.Max(
                    grid,
                    Spread
                        .Sample(
                            new(Open, stroke, cut, County.Skill.Times(factor), Shape, goal),
                            Workers.Shared(),
                            SpreadEffort.Of(304),
                            outlines: false
                        )
                        .Odds.Both.Value
                );
            }
        var best = WaySearch.Solve(new(Open, OpenPot, goal, new(0, 0, 0, 5, 0), County, Shape), Freedom.Full, Workers.Shared())[0];
        // Three standard errors of the grid's shares, of which the luckiest is taken.
        Assert.True(best.Odds.Both.Value > grid - 3 * Math.Sqrt(0.25 / 300), $"{best.Odds.Both} against {grid}");
    }

    [Fact]
    public void The_same_question_has_the_same_answer_and_progress_grows()
    {
        var seen = new List<WaySearchProgress>();
        IReadOnlyList<Way> Ask(IProgress<WaySearchProgress>? p) =>
            WaySearch.Solve(
                new(Open, OpenPot, StopIn.Create(2.4, 0.5, 0.15), new(0, 0, 0, 5, 0), County, Shape),
                Freedom.Full,
                Workers.Shared(),
                p
            );
        var (first, second) = (Ask(new Told(seen.Add)), Ask(null));
        Assert.Equal(first.Select(w => (w.Stroke, w.Odds.Both)), second.Select(w => (w.Stroke, w.Odds.Both)));
        Assert.True(seen.Count >= 2 && seen[^1].Share == 1);
        Assert.Equal(seen.Select(s => s.Share).Order(), seen.Select(s => s.Share));
        // Word each second may come before there is anything.
        Assert.NotEmpty(seen.First(s => s.Share > 0).Ways);
    }

    [Fact]
    public void It_stops_when_it_is_cancelled()
    {
        using var stop = new CancellationTokenSource();
        Assert.Throws<OperationCanceledException>(() =>
            WaySearch.Solve(
                new(Open, OpenPot, StopIn.Create(2.4, 0.5, 0.15), new(0, 0, 0, 5, 0), County, Shape),
                Freedom.Full,
                Workers.Shared(stop.Token),
                new Told(_ => stop.Cancel())
            )
        );
    }

    [Fact]
    public void What_cannot_be_done_is_answered_with_what_comes_nearest()
    {
        // The white cannot come back the length of the table from a thin, soft stroke.
        var ways = WaySearch.Solve(
            new(Open, OpenPot, StopIn.Create(0.1, 1.7, 0.05), new(0, 0, 0, 5, 0), County, Shape),
            new(0, 0, 0, 3, 4, false),
            Workers.Shared()
        );
        Assert.False(Assert.Single(ways).Ends.IsMet);
        Assert.True(ways[0].Ends.Off > 1);
    }

    [Fact]
    public void A_pot_that_has_no_aim_has_no_ways()
    {
        var layout = Layout.Create([("white", 3.4, 0.3), ("red-1", 3.0, 0.6)], Shape);
        Assert.Empty(
            WaySearch.Solve(
                new(layout, new(1, Pocket.YellowTop), StopIn.Create(2, 1, 0.1), new(0, 0, 0, 5, 0), County, Shape),
                Freedom.Full,
                Workers.Shared()
            )
        );
    }

    [Theory]
    [InlineData(-1, 0.5, 0.1, "goal.x")]
    [InlineData(1, 2, 0.1, "goal.y")]
    [InlineData(1, 1, 0, "goal.radius")]
    [InlineData(1, 1, double.NaN, "goal.radius")]
    public void A_place_off_the_table_is_refused(double x, double y, double radius, string field) =>
        Assert.Equal(field, Assert.Single(Assert.Throws<InputException>(() => StopIn.Create(x, y, radius)).Errors).Field);

    [Fact]
    public void A_cannon_on_the_potted_ball_is_refused()
    {
        Assert.Throws<InputException>(() => Cannon.Create(OpenPot.Slot, OpenPot));
        Assert.Throws<InputException>(() => Cannon.Create(0, OpenPot));
        Assert.Throws<InputException>(() => Cannon.Create(2, OpenPot, fullness: 1.2));
    }

    [Fact]
    public void A_cannon_of_a_chosen_fullness_and_speed_is_what_is_measured()
    {
        // Half-ball on the second ball, gently; told by plain geometry from the recorded path.
        var pot = new Pot(Ladder.SlotOf(Ball.Red(1)), Pocket.GreenMiddle);
        var goal = Cannon.Create(Ladder.SlotOf(Ball.Brown), pot, fullness: 0.5, slowest: 0.3, fastest: 2);
        var way = WaySearch.Solve(new(Ladder, pot, goal, new(0, 0, 0, 5, 0), County, Shape), Freedom.Full, Workers.Shared())[0];
        Assert.True(way.Ends.IsMet);
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        simulator.Place(Ladder.AsSpan());
        simulator.Play(way.Stroke.ToStrike(), record);
        var hit = record.Events.First(e => e.Kind == ShotEventKind.Ball && e.Ball == 0 && e.Other == goal.Slot);
        var before = record.Pieces.Last(p => p.Ball == 0 && p.End <= hit.Time + 1e-12);
        var (x, y) = before.At(hit.Time - 1e-5);
        var (dx, dy) = (hit.X - x, hit.Y - y);
        var brown = Ladder.Balls[goal.Slot];
        var across = Math.Abs((brown.X - hit.X) * dy - (brown.Y - hit.Y) * dx) / Math.Sqrt(dx * dx + dy * dy);
        Assert.Equal(0.5, 1 - across / (2 * Dimensions.BallRadius), Cannon.FullnessEitherWay);
        Assert.InRange(Math.Sqrt(dx * dx + dy * dy) / 1e-5, 0.3, 2);
    }

    private sealed class Told(Action<WaySearchProgress> tell) : IProgress<WaySearchProgress>
    {
        public void Report(WaySearchProgress value) => tell(value);
    }
}
