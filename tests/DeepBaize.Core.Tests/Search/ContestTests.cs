using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Core.Tests.Search;

/// <summary>What every search shares: contests, small changes for the better, the bound on the work, word at least each second.</summary>
public class ContestTests
{
    private static SearchContext Context(TableShape? shape = null) =>
        new(new(Core.Rules.Frame.Start, Player.Default, shape ?? new(Conditions.Default), PlanPreferences.Default), new(2), default);

    /// <summary>An entrant's worth, with an error of one that is common to all in part.</summary>
    private static double Noisy(double worth, int i, double own)
    {
        static double At(int i, int d) => Geometry.Normal.Quantile(ScrambledNet.At((uint)(i / 16), d, (uint)(i % 16)));
        return worth + At(i, 0) + own * At(i, worth == Math.Floor(worth) ? 1 : 2);
    }

    [Fact]
    public void The_better_one_wins_as_soon_as_it_is_apart_and_common_luck_does_not_count()
    {
        var (played, context) = (0, Context());
        List<Placed<double>> Run(double[] worths, double own)
        {
            played = 0;
            return Contest.Run(context, worths, new(16, 1024, 0.01), (_, worth, i) =>
            {
                Interlocked.Increment(ref played);
                return Noisy(worth, i, own);
            });
        }
        // Apart by far: after the first round.
        var clear = Run([1, 2, 3], own: 0.05);
        Assert.Equal([3, 2, 1], clear.Select(p => p.Entrant));
        Assert.All(clear, p => Assert.False(p.IsLevel));
        Assert.Equal(3 * 16, played);
        // Nearer than can be told: to the end, and level.
        var near = Run([1, 1.001], own: 2);
        Assert.Equal(2 * 1024, played);
        Assert.True(near[1].IsLevel && !near[0].IsLevel);
    }

    [Fact]
    public void Small_changes_climb_to_the_top_of_a_smooth_hill()
    {
        // Height 0.37, pace 5.2, with the two pulling at one another: a pattern search ends within its last step of it.
        static double Hill(Stroke s) =>
            -Math.Pow(s.HeightTips - 0.37, 2) - Math.Pow(s.Pace - 5.2, 2) - 0.5 * (s.HeightTips - 0.37) * (s.Pace - 5.2);
        var best = Refinement.Better<Found>(
            new(new(0, 0, 0, 4, 0)),
            [new(Height: 0.2), new(Speed: 0.3)],
            halvings: 4,
            (now, change) => change.Of(now.Stroke, 1.5, 8.5) is { } stroke ? new(stroke) : null,
            (a, b) => Hill(a.Stroke) > Hill(b.Stroke),
            mirror: 1
        );
        Assert.Equal(0.37, best.Stroke.HeightTips, 0.03);
        Assert.Equal(5.2, best.Stroke.Pace, 0.04);
    }

    private sealed record Found(Stroke Stroke);

    [Fact]
    public void A_change_beyond_the_tips_limit_or_the_paces_is_none()
    {
        Assert.Null(new StrokeChange(Height: 2).Of(new(0, 0, 0, 5, 0), 1.5, 8.5));
        Assert.Null(new StrokeChange(Speed: 4).Of(new(0, 0, 0, 5, 0), 1.5, 8.5));
        Assert.Equal(0.3, new StrokeChange(Side: 0.3).Of(new(0, 0, 0, 5, 0), 1.5, 8.5)!.Value.SideTips);
    }

    [Fact]
    public void Where_balls_run_much_longer_less_is_looked_at_and_it_is_said()
    {
        var layout = Layout.OfRest([new(Ball.White, 1, 0.7), .. Rack.Colours(), .. Rack.Pack()]);
        var usual = Context();
        usual.Bound(layout);
        Assert.Equal((1, 40), (usual.WorkShare, usual.Bounded(40, 10)));
        var ice = Context(
            new(Conditions.With(new Dictionary<string, double> { ["rollingFriction"] = 0.0025, ["slidingFriction"] = 0.05 }))
        );
        ice.Bound(layout);
        Assert.InRange(ice.WorkShare, 0.1, 0.9);
        Assert.InRange(ice.Bounded(40, 10), 10, 36);
        Assert.Equal(10, ice.Bounded(12, 10));
    }

    [Fact]
    public async Task Word_comes_at_least_each_second_though_a_stage_takes_longer()
    {
        var (told, again) = (new List<double>(), new TaskCompletionSource());
        void Tell(double share)
        {
            told.Add(share);
            if (told.Count == 2)
                again.SetResult();
        }
        using (var heart = new Heartbeat<double>(new Teller(Tell), share => share))
        {
            heart.Tell(0.2);
            await again.Task.WaitAsync(TimeSpan.FromSeconds(20));
            heart.Tell(1);
        }
        // Once or, on a busy machine, more often in between; the last word is the last.
        Assert.True(told.Count >= 3);
        Assert.Equal((0.2, 1.0), (told[0], told[^1]));
        Assert.All(told[1..^1], share => Assert.Equal(0.2, share));
    }

    private sealed class Teller(Action<double> tell) : IProgress<double>
    {
        public void Report(double value) => tell(value);
    }
}
