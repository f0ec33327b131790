using BenchmarkDotNet.Attributes;
using DeepBaize.Core.Advice.Position;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using DeepBaize.Data.Demo;

namespace DeepBaize.Benchmarks;

/// <summary>
/// What the desk asks while a control is dragged, on demo positions. Targets: Read with 22 balls 60 ms; every chance told within 0.01 on
/// one core 80 ms;
/// Put it there 0.3 s to the first answer and 1.5 s to all, on two cores.
/// </summary>
[MemoryDiagnoser]
[MedianColumn]
public class JudgementBenchmarks
{
    [Params("Mid-break, open reds", "High on the black, full pack")]
    public string Position { get; set; } = "";

    private readonly TableShape _shape = new(Conditions.Default);
    private Layout _layout = null!;
    private Stroke _stroke;
    private Cut _cut;
    private Goal _goal = null!;

    [GlobalSetup]
    public void Setup()
    {
        var content = DemoPositions.All.Single(d => d.Name == Position).Content;
        _layout = Layout.Create([.. content.Balls.Select(b => ((string?)b.Id, b.X, b.Y))], _shape);
        Ball.TryParse(content.Stroke.Pot!.Ball, out var ball);
        Pockets.TryParse(content.Stroke.Pot.Pocket, out var pocket);
        _cut = Cut.Of(_layout, new(_layout.SlotOf(ball), pocket), _shape);
        _goal = StopIn.Create(2.6, 0.6, 0.15);
        _stroke = content.Stroke.ToStroke(Player.Default.NaturalElevation);
        _stroke = _stroke with { AimDegrees = PotAim.Find(_layout, _cut, _stroke, _shape)!.Value };
    }

    [Benchmark]
    public int Read() => TableReading.Read(_layout, _stroke, Player.OfSkill("county"), _shape).Count;

    [Benchmark]
    public double ToldChancesOnOneCore() =>
        Spread.Sample(new(_layout, _stroke, _cut, Skill.Named("county"), _shape), Workers.Single()).Odds.Pot.Value;

    [Benchmark]
    public int PutItThere() =>
        WaySearch.Solve(new(_layout, _cut.Pot, _goal, _stroke, Player.Default, _shape), Freedom.Full, Workers.Shared()).Count;

    /// <summary>Until the first ways are told, and no further.</summary>
    [Benchmark]
    public int FirstOfPutItThere()
    {
        using var stop = new CancellationTokenSource();
        var first = new First(stop);
        try
        {
            return WaySearch
                .Solve(new(_layout, _cut.Pot, _goal, _stroke, Player.Default, _shape), Freedom.Full, Workers.Shared(stop.Token), first)
                .Count;
        }
        catch (OperationCanceledException)
        {
            return first.Ways;
        }
    }

    private sealed class First(CancellationTokenSource stop) : IProgress<WaySearchProgress>
    {
        public int Ways { get; private set; }

        public void Report(WaySearchProgress value)
        {
            Ways = value.Ways.Count;
            stop.Cancel();
        }
    }
}
