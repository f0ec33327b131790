using BenchmarkDotNet.Attributes;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Benchmarks;

/// <summary>
/// Whole shots, single-threaded, nothing recorded. Targets on the median: a pot and two cushions with 22 balls 10 µs and no
/// allocation; a break-off at pace 9 into the full pack 0.4 ms; a stroke on into a full pack 0.3 ms; a plain two-ball shot 5 µs.
/// </summary>
[MemoryDiagnoser]
[MedianColumn]
public class SimulatorBenchmarks
{
    private readonly Simulator _simulator = new(new(Conditions.Default));
    private PlacedBall[] _potBalls = [],
        _breakBalls = [],
        _twoBalls = [],
        _packBalls = [];
    private Strike _pot,
        _potAsTheCueLies,
        _breakOff,
        _two,
        _intoThePack;
    private readonly Simulator _leaning = new(new(Conditions.Default with { DriftAlong = 0.003, DriftAcross = 0.004 }));
    private readonly Simulator _coarse = new(new(Conditions.Default), Simulator.Coarse);

    [GlobalSetup]
    public void Setup()
    {
        // A red potted from the middle of a spread of all 22 balls; the white goes on off two cushions.
        _potBalls = Spread();
        var cut = Cut.Of(_potBalls[0], _potBalls[7], Pocket.GreenTop, new(Conditions.Default));
        _pot = Enumerable
            .Range(0, 80)
            .Select(i => new Stroke(0, 0, 0.3 - i % 10 * 0.1, 5.2 - i / 10 * 0.3, 0))
            .Select(stroke =>
                (
                    stroke with
                    {
                        AimDegrees = PotAim.Find(_potBalls[0], _potBalls[7], cut, stroke, new(Conditions.Default)) ?? cut.AimDegrees,
                    }
                ).ToStrike()
            )
            .First(strike => IsMeant(_potBalls, strike, potted: 1, contacts: 1, cushions: 2, out _));

        _potAsTheCueLies = Strike.Create(_pot.AimDegrees, _pot.CueSpeed, _pot.Side, _pot.Height, 3);

        // From high on the black a firm follow off the top cushion into the pack.
        _packBalls = [new(Ball.White, 3.03, 1.12), .. Rack.Colours(), .. Rack.Pack().Take(14)];
        _intoThePack = new Stroke(-42.5, 0, 0.8, 6, 3).ToStrike();
        Check(_packBalls, _intoThePack, potted: null, contacts: 5, cushions: null);

        // The white past the blue, hard into the pack.
        _breakBalls = [new(Ball.White, BaulkLineX, Width / 2 - 0.2), .. Rack.Colours(), .. Rack.Pack()];
        var apex = _breakBalls[8];
        _breakOff = new Stroke(
            Math.Atan2(apex.Y - 0.02 - _breakBalls[0].Y, apex.X - _breakBalls[0].X) * 180 / Math.PI,
            0,
            0,
            9,
            0
        ).ToStrike();
        Check(_breakBalls, _breakOff, potted: null, contacts: 15, cushions: null);

        // Half-ball and soft; neither ball reaches a cushion.
        _twoBalls = [new(Ball.White, 1.0, 0.8), new(Ball.Red(1), 1.6, 0.83)];
        _two = new Stroke(0.4, 0, 0, 2, 0).ToStrike();
        Check(_twoBalls, _two, potted: 0, contacts: 1, cushions: 0);
    }

    [Benchmark]
    public double PotAndTwoCushionsWith22Balls() => Play(_potBalls, _pot);

    [Benchmark]
    public double BreakOffAtPace9() => Play(_breakBalls, _breakOff);

    /// <summary>On a table that is not level: at most twice as long.</summary>
    [Benchmark]
    public double BreakOffWithDrift() => Play(_breakBalls, _breakOff, _leaning);

    [Benchmark]
    public double PlainTwoBallShot() => Play(_twoBalls, _two);

    [Benchmark]
    public double PotAndTwoCushionsAsTheCueLies() => Play(_potBalls, _potAsTheCueLies);

    [Benchmark]
    public double OnIntoAFullPack() => Play(_packBalls, _intoThePack);

    [Benchmark]
    public double OnIntoAFullPackCoarsely() => Play(_packBalls, _intoThePack, _coarse);

    private double Play(PlacedBall[] balls, in Strike strike, Simulator? simulator = null)
    {
        simulator ??= _simulator;
        simulator.Place(balls);
        simulator.Play(strike);
        return simulator.Duration;
    }

    private static PlacedBall[] Spread()
    {
        List<PlacedBall> balls = [new(Ball.White, 2.60, 1.35), .. Rack.Colours(), new(Ball.Red(1), 2.98, 1.28)];
        // The others out of the way, in the half towards baulk.
        for (var i = 2; i <= 15; i++)
            balls.Add(new(Ball.Red(i), 0.95 + (i - 2) / 7 * 0.5, 0.18 + (i - 2) % 7 * 0.235));
        return [.. balls];
    }

    /// <summary>The benchmark measures what its name says, or nothing.</summary>
    private static void Check(PlacedBall[] balls, in Strike strike, int? potted, int contacts, int? cushions)
    {
        if (!IsMeant(balls, strike, potted, contacts, cushions, out var was))
            throw new InvalidOperationException($"Not the shot meant: {was}; meant {potted}, {contacts}, {cushions}.");
    }

    private static bool IsMeant(PlacedBall[] balls, in Strike strike, int? potted, int contacts, int? cushions, out string was)
    {
        var simulator = new Simulator(new(Conditions.Default));
        var record = new ShotRecord();
        simulator.Place(balls);
        simulator.Play(strike, record);
        int Count(ShotEventKind kind, Func<ShotEvent, bool>? which = null) =>
            record.Events.Count(e => e.Kind == kind && (which is null || which(e)));
        var (p, b, c) = (Count(ShotEventKind.Pot), Count(ShotEventKind.Ball), Count(ShotEventKind.Cushion) + Count(ShotEventKind.Jaw));
        was =
            $"{p} pots, {b} contacts of balls, {c} of cushions; "
            + string.Join(", ", record.Events.Select(e => $"{e.Kind} {e.Ball} {e.X:0.00} {e.Y:0.00}"));
        return (potted is null || p == potted) && b >= contacts && (contacts != 1 || b == 1) && (cushions is null || c == cushions);
    }
}

/// <summary>One rebound from a cushion, of the kinds that take the integrator longest and least.</summary>
[MemoryDiagnoser]
[MedianColumn]
public class CushionBenchmarks
{
    private readonly CushionContact _cushion = new(Conditions.Default);

    [Params("straight sliding", "straight rolling", "oblique rolling", "oblique with side")]
    public string Ball { get; set; } = "";

    private BallMotion _motion;

    [GlobalSetup]
    public void Setup() =>
        _motion = Ball switch
        {
            "straight sliding" => new(2, 0, 0, 0, 0),
            "straight rolling" => new(2, 0, 0, 2 / BallRadius, 0),
            "oblique rolling" => new(1.414, 1.414, -1.414 / BallRadius, 1.414 / BallRadius, 0),
            _ => new(1.414, 1.414, -1.414 / BallRadius, 1.414 / BallRadius, 60),
        };

    [Benchmark]
    public BallMotion Rebound() => _cushion.Rebound(_motion, 1, 0);
}
