using DeepBaize.Core.Geometry;
using DeepBaize.Core.Learning;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using DeepBaize.Shared;

namespace DeepBaize.Core.Tests.Learning;

/// <summary>Figures of tables and players, found again from strokes on tables whose figures are known.</summary>
public class TableFitTests
{
    private static readonly Skill Machine = new(Skill.Own, 0.001, 0.005, 0.1, 0.2, 0.05, 0.01) { CushionDegrees = 0.02 };

    private static readonly string[] Names = ["rollingFriction", "cushionRestitution", "slidingFriction", "driftAcross"];

    private static List<ObservedStroke> Trials(TableShape hidden, Skill skill, int count, int seed)
    {
        var (random, shape) = (new Random(seed), new TableShape(Conditions.Default));
        var trials = new List<ObservedStroke>();
        for (var i = 0; i < count; i++)
        {
            var (layout, stroke, pot) = RandomStrokes.Pot(random, shape);
            if (i % 2 == 1)
                ((layout, stroke), pot) = (RandomStrokes.Bare(random), null!);
            var error = Scatter.Of(layout, stroke, skill, hidden, pot).Error(StandardDraws.Draw(random));
            trials.Add(RandomStrokes.Seen(layout, stroke, error, hidden, 0.005, random, pot));
        }
        return trials;
    }

    [Fact]
    public void A_table_is_found_again_from_strokes_without_errors()
    {
        var truth = Conditions.Default with
        {
            RollingFriction = 0.0152,
            CushionRestitution = 0.94,
            SlidingFriction = 0.21,
            DriftAcross = 0.004,
        };
        var before = Belief.Before(Conditions.Default, Parameter.Named(Names));
        var learnt = TableFit.Of(Trials(new(truth), Machine, 10, 4), before, Machine, Workers.Shared());
        Assert.Equal(truth.RollingFriction, learnt.Belief.Conditions.RollingFriction, 0.0006);
        Assert.Equal(truth.CushionRestitution, learnt.Belief.Conditions.CushionRestitution, 0.02);
        Assert.Equal(truth.SlidingFriction, learnt.Belief.Conditions.SlidingFriction, 0.012);
        // Fast balls hardly run off.
        Assert.Equal(truth.DriftAcross, learnt.Belief.Conditions.DriftAcross, 0.0025);
        Assert.InRange(learnt.MissAfter, 0, 0.3 * learnt.MissBefore);
        Assert.Empty(learnt.Strange);
        Assert.InRange(learnt.Held.Count(h => h), 7, 10);
        for (var i = 0; i < Names.Length; i++)
        {
            var range = learnt.Belief.RangeOf(i);
            Assert.InRange(learnt.Belief.Narrowed(i), 0.5, 1);
            Assert.InRange(range.Value, range.Low, range.High);
        }
    }

    /// <summary>
    /// Coriolis's closed form turned round: a plain ball struck at v rolls at 5v/7 after 12v²/(49μs·g) and stops after a further
    /// (5v/7)²/(2μr·g); the place where it stops gives μr.
    /// </summary>
    [Fact]
    public void A_plain_balls_way_gives_the_rolling_friction_of_the_closed_form()
    {
        const double v = 1.05,
            way = 2.4,
            slide = 0.18;
        var sliding = 12 * v * v / (49 * slide * 9.81);
        var expected = Math.Pow(5 * v / 7, 2) / (2 * 9.81 * (way - sliding));
        var layout = Layout.OfRest([new(Ball.White, 0.4, 0.889)]);
        // Of the blow: a level centre strike gives (1 + e)·V/(1 + m/M).
        var c = Conditions.Default;
        var stroke = new Stroke(0, 0, 0, Pace.OfCueSpeed(v * (1 + Dimensions.BallMass / c.CueMass) / (1 + c.TipRestitution)), 0);
        var seen = new ObservedStroke(layout, stroke, new([new(0, new(0.4 + way, 0.889))], 0.002));
        var before = Belief.Before(c, Parameter.Named(["rollingFriction"]));
        var learnt = TableFit.Of([seen, seen, seen], before, Machine, Workers.Shared());
        Assert.Equal(expected, learnt.Belief.Conditions.RollingFriction, 0.01 * expected);
    }

    [Fact]
    public void What_the_strokes_do_not_touch_is_said_to_be_unknown()
    {
        var before = Belief.Before(Conditions.Default, Parameter.Named(["rollingFriction", "ballRestitution", "cornerGap"]));
        var bare = RandomStrokes.Bare(new(1), 1.5, 2);
        var seen = RandomStrokes.Seen(bare.Layout, bare.Stroke, default, new(Conditions.Default), 0.005, new(1));
        var learnt = TableFit.Of([seen], before, Machine, Workers.Shared());
        Assert.InRange(learnt.Belief.Narrowed(0), 0.3, 1);
        Assert.Equal(0, learnt.Belief.Narrowed(1), 0.01);
        Assert.Equal(0, learnt.Belief.Narrowed(2), 0.01);
    }

    [Fact]
    public void A_trial_of_another_table_is_told_as_strange_and_does_not_decide()
    {
        var shape = new TableShape(Conditions.Default);
        var trials = Trials(shape, Machine, 9, 8);
        // One white seen half a table from where any near stroke leaves it.
        var wrong = trials[3] with
        {
            Seen = trials[3].Seen with { Balls = [new(0, new(0.2, 1.6))] },
        };
        trials[3] = wrong;
        var before = Belief.Before(Conditions.Default, Parameter.Named(Names));
        var learnt = TableFit.Of(trials, before, Machine, Workers.Shared());
        Assert.Contains(3, learnt.Strange);
        Assert.Equal(0.0125, learnt.Belief.Conditions.RollingFriction, 0.0008);
    }

    [Fact]
    public void The_stroke_that_is_chosen_narrows_more_than_the_average_one()
    {
        var belief = Belief.Before(Conditions.Default, Parameter.Named(Names));
        var next = TeachingStrokes.Next(belief, Skill.Named("county"), 0.02, Workers.Shared());
        Assert.InRange(next[0].Value, 0, 0.9 * next.Average(n => n.Value));
        Assert.All(next, n => Assert.True(n.Value > 0));
        // What is known already needs no stroke: after it the same one tells less than another.
        var shape = new TableShape(Conditions.Default);
        var played = Enumerable.Repeat(TeachingStrokes.Predicted(next[0].Layout, next[0].Stroke, 0.005, shape), 6).ToList();
        var after = TableFit.Of(played, belief, Machine, Workers.Shared()).Belief;
        Assert.InRange(TeachingStrokes.Knowledge(after, Workers.Shared()), 0, TeachingStrokes.Knowledge(belief, Workers.Shared()));
        Assert.NotEqual(next[0].Stroke, TeachingStrokes.Next(after, Skill.Named("county"), 0.02, Workers.Shared())[0].Stroke);
    }

    /// <summary>Squirt by the way of a white with side, throw by what two balls do, a pocket by what its jaws refuse.</summary>
    [Theory]
    [InlineData("endMassRatio", 40)]
    [InlineData("ballFrictionRange", 0.16)]
    [InlineData("cornerGap", 0.081)]
    public void Squirt_throw_and_the_width_of_a_pocket_are_found_from_strokes_that_show_them(string name, double truth)
    {
        var hidden = new TableShape(Conditions.With(new Dictionary<string, double> { [name] = truth }));
        var random = new Random(35);
        double Between(double low, double high) => low + (high - low) * random.NextDouble();
        (Layout, Stroke) Shown(int i)
        {
            if (name == "endMassRatio")
                return (Layout.OfRest([new(Ball.White, Between(0.3, 1), 0.9)]), new(0, i % 2 == 0 ? 0.9 : -0.9, 0, 3.5, 3));
            // Half-ball contacts; or straight at a corner, a little beside its middle.
            var red = name == "cornerGap" ? new Vec2(2.9, 1.25) : new Vec2(1.8, Between(0.7, 1.1));
            var aim =
                name == "cornerGap" ? (new Vec2(Dimensions.Length, Dimensions.Width) - red).Direction : Angle.FromDegrees(Between(-20, 20));
            var white = red - 0.7 * aim.Unit;
            var turn = name == "cornerGap" ? 0.06 * (i - 4.5) : Math.Asin(Between(0.5, 1.4) * Dimensions.BallRadius / 0.7) * 180 / Math.PI;
            return (Layout.OfRest([new(Ball.White, white), new(Ball.Red(1), red)]), new(aim.Degrees + turn, 0, 0, 3.4, 3));
        }
        var strokes = Enumerable
            .Range(0, 10)
            .Select(Shown)
            .Select(s => RandomStrokes.Seen(s.Item1, s.Item2, default, hidden, 0.003, random))
            .ToList();
        var learnt = TableFit.Of(strokes, Belief.Before(Conditions.Default, Parameter.Named([name])), Machine, Workers.Shared()).Belief;
        var range = learnt.RangeOf(0);
        Assert.True(range.Low <= truth && truth <= range.High, $"{range}");
        Assert.True(learnt.Narrowed(0) > 0.5, $"{learnt.Narrowed(0)}");
    }

    [Fact]
    public void How_high_the_butt_lies_is_found_by_how_side_curves_the_way()
    {
        var shape = new TableShape(Conditions.Default);
        var truth = new Skill(Skill.Own, 0.03, 0.2, 5, 3, 1, 0.3) { CushionDegrees = 0.3, Evenness = 8 };
        var random = new Random(8);
        var attempts = new List<ObservedStroke>();
        for (var i = 0; i < 30; i++)
        {
            var (layout, bare) = RandomStrokes.Bare(random);
            var meant = bare with { SideTips = i % 2 == 0 ? 1 : -1, HeightTips = 0 };
            var error = Scatter.Of(layout, meant, truth, shape).Error(StandardDraws.Draw(random));
            attempts.Add(
                RandomStrokes.Seen(layout, meant with { ElevationDegrees = 6 }, error, shape, 0.01, random) with
                {
                    Meant = meant,
                }
            );
        }
        var butt = ButtFit.Of(attempts, truth, shape, Workers.Shared())!;
        Assert.True(butt.Low < 3 && butt.High > 3, $"{butt}");
        Assert.True(butt.Low > 1, $"{butt}");
        // Where the butt is as high as it goes it cannot have been higher.
        var steep = attempts
            .Take(6)
            .Select(a => a with { Meant = a.Meant with { ElevationDegrees = Strike.MaxElevationDegrees } })
            .ToList();
        Assert.InRange(ButtFit.Of(steep, truth, shape, Workers.Shared())!.High, -3, 0);
        // Plain strokes tell nothing of it.
        Assert.Null(
            ButtFit.Of([.. attempts.Select(a => a with { Meant = a.Meant with { SideTips = 0 } })], truth, shape, Workers.Shared())
        );
    }

    [Fact]
    public void A_players_pace_and_height_are_found_again_and_what_he_always_does()
    {
        var shape = new TableShape(Conditions.Default);
        var truth = new Skill(Skill.Own, 0.03, 0.2, 5, 5, 2.5, 0.3) { CushionDegrees = 0.8, Evenness = 8 };
        var random = new Random(6);
        var attempts = new List<ObservedStroke>();
        for (var i = 0; i < 60; i++)
        {
            var (layout, stroke, pot) = RandomStrokes.Pot(random, shape);
            var error = Scatter.Of(layout, stroke, truth, shape, pot).Error(StandardDraws.Draw(random));
            // Each time struck 8 % too hard.
            attempts.Add(RandomStrokes.Seen(layout, stroke, error with { Pace = error.Pace + 0.08 }, shape, 0.01, random, pot));
        }
        var learnt = PlayerFit.Of(attempts, Skill.Named("club"), shape, Workers.Shared());
        Assert.Equal(0.08, learnt.Habits.Pace.Value, 0.03);
        Assert.InRange(0, learnt.Habits.Height.Low, learnt.Habits.Height.High);
        Assert.InRange(learnt.Skill.HeightMillimetres, 1.4, 3.6);
        Assert.InRange(learnt.Unexplained.Count, 0, 6);
        var height = learnt.Parts.Single(p => p.Part.Name == "height");
        Assert.InRange(2.5, height.Range.Low, height.Range.High);
        // No stroke met a cushion before its ball: nothing is learnt of cushions.
        Assert.InRange(learnt.Parts.Single(p => p.Part.Name == "cushion").Narrowed, 0, 0.3);
    }

    [Theory]
    [InlineData("gravity", "fit[1]")]
    [InlineData("rollingFriction", "fit[1]")]
    public void What_cannot_be_learnt_or_is_named_twice_is_refused(string name, string field)
    {
        var refused = Assert.Throws<InputException>(() => Parameter.Named(["rollingFriction", name]));
        Assert.Equal(field, refused.Errors[0].Field);
    }

    [Fact]
    public void Each_figure_is_learnt_in_a_scale_that_leads_back_to_it()
    {
        foreach (var parameter in Parameter.All)
            Assert.Equal(parameter.Field.Get(Conditions.Default), parameter.Value(parameter.Of(Conditions.Default)), 1e-9);
    }
}
