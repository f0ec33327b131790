using DeepBaize.Core.Geometry;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Valuing;

/// <summary>What a place is worth, against how players judge it: common practice, no source.</summary>
public class EvaluationTests
{
    private static readonly TableShape Shape = new(Conditions.Default);
    private static readonly Evaluation Evaluation = new(Player.OfSkill("county"), PlanPreferences.Default);

    /// <summary>Reds in the open, a colour to come; the white at this cut on the black and so far from it, m.</summary>
    private static Quality OnBlack(double cutDegrees, double distance)
    {
        var layout = Layout.OfRest([
            new(Ball.White, 1, 0.3),
            .. Rack.Colours(),
            new(Ball.Red(1), 2.9, 0.5),
            new(Ball.Red(2), 2.9, 1.3),
            new(Ball.Red(3), 2.4, 1.2),
        ]);
        var situation = Situation.Create(layout, new() { On = BallOn.Colour });
        var lines = new PotLines(layout, Shape);
        foreach (var line in lines.Lines)
        {
            if (lines.BallIn(line.Slot) != Ball.Black || line.Pocket != Pocket.YellowTop)
                continue;
            var towards = line.Direction + Angle.FromDegrees(180 + cutDegrees);
            return Evaluation.At(situation, lines, line.Ghost + distance * towards.Unit, only: b => b == Ball.Black);
        }
        throw new InvalidOperationException("the black has no line");
    }

    [Fact]
    public void A_middling_angle_beats_both_straight_and_steep()
    {
        var (straight, angled, steep) = (OnBlack(0, 0.4), OnBlack(-25, 0.4), OnBlack(-65, 0.4));
        Assert.True(angled.Value > straight.Value && straight.Value > steep.Value);
        Assert.Equal(25, angled.Pot!.Value.Cut.Degrees, 1e-6);
    }

    [Fact]
    public void A_middling_distance_beats_both_on_top_of_the_ball_and_far_away()
    {
        Assert.True(OnBlack(-25, 0.4).Value > OnBlack(-25, 0.03).Value);
        Assert.True(OnBlack(-25, 0.4).Value > OnBlack(-25, 1.3).Value);
    }

    [Fact]
    public void A_ball_nearly_touching_the_cushion_spoils_a_place()
    {
        var layout = Layout.OfRest([new(Ball.White, 1, 0.3), .. Rack.Colours(), new(Ball.Red(1), 2.9, 0.5)]);
        var (situation, lines) = (Situation.Create(layout), new PotLines(layout, Shape));
        Assert.True(
            Evaluation.At(situation, lines, new(2.5, BallRadius)).Control.Cushion
                < Evaluation.At(situation, lines, new(2.5, 0.3)).Control.Cushion
        );
    }

    [Fact]
    public void Better_players_expect_more_of_the_same_place()
    {
        var layout = Layout.OfRest([new(Ball.White, 2.5, 0.7), .. Rack.Colours(), new(Ball.Red(1), 2.9, 0.5), new(Ball.Red(2), 2.9, 1.3)]);
        var (situation, lines) = (Situation.Create(layout), new PotLines(layout, Shape));
        var values = new[] { "tour", "county", "club", "learner" }
            .Select(s => new Evaluation(Player.OfSkill(s), PlanPreferences.Default).Of(situation, lines).Value)
            .ToList();
        Assert.Equal(values.OrderDescending(), values);
    }

    [Fact]
    public void Reds_that_are_tied_up_are_worth_less_than_reds_in_the_open()
    {
        double Value(IEnumerable<PlacedBall> reds)
        {
            var layout = Layout.OfRest([new(Ball.White, 2.2, 0.5), .. Rack.Colours(), new(Ball.Red(15), 2.6, 0.35), .. reds]);
            return Evaluation.Of(Situation.Create(layout), new(layout, Shape)).Value;
        }
        var open = Enumerable.Range(1, 6).Select(i => new PlacedBall(Ball.Red(i), 1.95 + 0.22 * i, 1.35));
        var tied = Rack.Pack().Where(b => b.Ball.Index is >= 10 and < 16);
        Assert.True(Value(open) > Value(tied));
    }

    [Fact]
    public void The_map_of_one_ball_is_best_where_that_ball_is_easy_and_its_steps_lie_within_one_another()
    {
        var layout = Layout.OfRest([new(Ball.White, 1, 0.3), .. Rack.Colours(), new(Ball.Red(1), 2.9, 0.5)]);
        var map = PositionMap.Of(
            Situation.Create(layout).Meaning(BallOn.Colour),
            Player.OfSkill("county"),
            Shape,
            PlanPreferences.Default,
            Workers.Shared(),
            b => b == Ball.Pink
        );
        var best = map.Best!.Value;
        Assert.InRange(Math.Sqrt(Math.Pow(best.X - Spot(Ball.Pink).X, 2) + Math.Pow(best.Y - Spot(Ball.Pink).Y, 2)), 2 * BallRadius, 0.9);
        Assert.All(map.Bands, band => Assert.Contains(band.Outlines, o => Contours.Contains(o, best)));
        var areas = map.Bands.Select(b => b.Outlines.Sum(Area)).ToList();
        Assert.Equal(areas.OrderDescending(), areas);

        static double Area(IReadOnlyList<Vec2> o) =>
            Enumerable.Range(0, o.Count).Sum(i => o[i].X * o[(i + 1) % o.Count].Y - o[(i + 1) % o.Count].X * o[i].Y) / 2;
    }

    [Fact]
    public void A_careful_player_minds_a_miss_by_four_points_more_than_it_costs()
    {
        double Minded(Risk risk, PlanTarget target) =>
            new Core.Search.SearchContext(
                new(Core.Rules.Frame.Start, Player.Default, Shape, new(target, Risk: risk)),
                Core.Work.FairGate.Shared,
                default
            ).MissMinded;
        Assert.Equal(4, Minded(Risk.Careful, PlanTarget.MostPoints));
        Assert.Equal(0, Minded(Risk.Balanced, PlanTarget.Frame));
        Assert.True(Minded(Risk.Bold, PlanTarget.Frame) < 0);
        // In the measure of the frame four points are some hundredths.
        Assert.InRange(Minded(Risk.Careful, PlanTarget.Frame), 0.005, 0.03);
    }
}
