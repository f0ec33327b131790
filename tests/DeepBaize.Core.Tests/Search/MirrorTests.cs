using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Search;

/// <summary>A table seen in a mirror, the player's hand too, is the same question: it has the same answer, mirrored.</summary>
[Trait("Speed", "Slow")]
public class MirrorTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    /// <summary>The colours, and a few reds anywhere.</summary>
    private static Layout Table(int seed)
    {
        var random = new Random(seed);
        List<PlacedBall> balls = [.. Rack.Colours()];
        for (var n = 1; balls.Count < 11;)
        {
            var ball = n == 5 ? Ball.White : Ball.Red(n);
            var at = new Vec2(0.1 + 3.35 * random.NextDouble(), 0.06 + 1.65 * random.NextDouble());
            if (!Shape.CanRest(at) || balls.Any(b => b.Gap(at) < 0.01))
                continue;
            balls.Add(new(ball, at));
            n++;
        }
        return Layout.OfRest(balls);
    }

    private static Layout Mirrored(Layout layout) => Layout.OfRest(layout.Balls.Select(b => b with { At = new(b.X, Width - b.Y) }));

    private static IReadOnlyList<Choice> Choices(Layout layout, Player player)
    {
        var context = new SearchContext(new(Frame.Start, player, Shape, PlanPreferences.Default), FairGate.Shared, default);
        return new ShotSearch(context).Choose(Situation.Create(layout), Effort.Later with { Reported = 3 });
    }

    [Fact]
    public void The_best_shot_is_worth_the_same_within_what_is_told_and_mostly_the_same_one()
    {
        var (tables, same) = (Thoroughness.IsLong ? 50 : 6, 0);
        var (right, left) = (Player.Default, Player.Default with { Hand = Hand.Left });
        for (var seed = 0; seed < tables; seed++)
        {
            var layout = Table(seed);
            var (one, other) = (Choices(layout, right), Choices(Mirrored(layout), left));
            Assert.Equal(one.Count > 0, other.Count > 0);
            if (one.Count == 0)
                continue;
            Assert.True(one[0].Value.IsLevelWith(other[0].Value), $"{seed}: {one[0].Value} {other[0].Value}");
            if (one[0].Nominated == other[0].Nominated && Math.Abs(one[0].Stroke.SideTips + other[0].Stroke.SideTips) < 0.2)
                same++;
        }
        Assert.InRange(same, 0.75 * tables, tables);
    }

    [Fact]
    public void A_stroke_and_its_mirror_image_are_played_with_mirrored_errors()
    {
        var layout = Layout.OfRest([new(Ball.White, 1.2, 0.6), new(Ball.Red(1), 1.9, 0.8), new(Ball.Red(2), 1.9525, 0.8)]);
        var stroke = new Stroke(14, 0.4, -0.3, 6, 3);
        var skill = Skill.Named("club");
        var (simulator, mirrored) = (new Simulator(Shape), new Simulator(Shape));
        var (scatter, image) = (
            Scatter.Of(layout, stroke, skill, Shape),
            Scatter.Of(Mirrored(layout), stroke with { AimDegrees = -14, SideTips = -0.4 }, skill, Shape)
        );
        var off = 0.0;
        for (var i = 0; i < 64; i++)
        {
            var draws = ErrorStream.Named("mirror").At(i);
            scatter.Error(draws).Play(simulator, layout, stroke, null);
            image.Error(draws).Play(mirrored, Mirrored(layout), stroke with { AimDegrees = -14, SideTips = -0.4 }, null);
            off = Math.Max(off, new Vec2(simulator.X(0) - mirrored.X(0), simulator.Y(0) - (Width - mirrored.Y(0))).Length);
        }
        // Rounding alone parts them.
        Assert.InRange(off, 0, 1e-3);
    }

    [Fact]
    public void Among_lines_that_are_level_the_likelier_comes_first_and_of_equally_likely_ones_the_simplest()
    {
        static (string, Estimate, Estimate, double) Line(string name, double value, double error, double chance, double penalty) =>
            (name, new(value, error, 64), new(chance, 0.012, 512), penalty);
        var ordered = Simplicity.Order(
            [
                Line("49 %", 20, 2, 0.49, 0.01),
                Line("61 %, with side", 18.5, 2, 0.61, 0.03),
                Line("60 %, plain", 18, 2, 0.6, 0),
                Line("worse", 5, 1, 0.95, 0),
            ],
            l => l.Item2,
            l => l.Item4,
            l => l.Item3
        );
        Assert.Equal(["60 %, plain", "61 %, with side", "49 %", "worse"], ordered.Select(l => l.Item1));
    }

    [Fact]
    public void A_first_answer_has_strokes_of_its_own()
    {
        var off = new Sums();
        for (var seed = 20; seed < 32; seed++)
        {
            var layout = Table(seed);
            var context = new SearchContext(new(Frame.Start, Player.Default, Shape, PlanPreferences.Default), FairGate.Shared, default);
            IReadOnlyList<Choice> first = [];
            new ShotSearch(context).Choose(Situation.Create(layout), Effort.Later, list => first = list);
            foreach (var choice in first)
            {
                Assert.True(choice.Odds.Chance is { Strokes: >= 32, Error: > 0 });
                // Played anew, by other strokes.
                var workspace = new Workspace(context);
                var scatter = workspace.ScatterOf(layout, choice.Stroke, Player.Default.Skill.Times(choice.Reach.ErrorFactor), choice.Pot);
                var scored = 0;
                for (var i = 0; i < 256; i++)
                {
                    var error = scatter.Error(ErrorStream.Named("anew").At(i));
                    if (workspace.Play(Situation.Create(layout), choice.Stroke, error, choice.Nominated).Ruling.Points > 0)
                        scored++;
                }
                off.Add(off.Strokes, choice.Odds.Chance.Value - scored / 256.0);
            }
        }
        Assert.InRange(off.Mean.Value, -3 * off.Mean.Error - 0.005, 3 * off.Mean.Error + 0.005);
    }
}
