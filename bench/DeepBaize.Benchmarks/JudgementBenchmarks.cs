using BenchmarkDotNet.Attributes;
using DeepBaize.Core.Shots;
using DeepBaize.Core.Table;
using DeepBaize.Data.Demo;

namespace DeepBaize.Benchmarks;

/// <summary>What the desk asks while a control is dragged, on demo positions. Targets: Read with 22 balls 150 ms; 2,000 samples on one core 80 ms.</summary>
[MemoryDiagnoser]
[MedianColumn]
public class JudgementBenchmarks
{
    [Params("Mid-break, open reds", "High on the black, full pack")]
    public string Position { get; set; } = "";

    private readonly TableShape _shape = new(Conditions.Default);
    private Layout _layout = null!;
    private Stroke _stroke;
    private (int, Cut) _pot;

    [GlobalSetup]
    public void Setup()
    {
        var content = DemoPositions.All.Single(d => d.Name == Position).Content;
        _layout = Layout.Create([.. content.Balls.Select(b => ((string?)b.Id, b.X, b.Y))], _shape);
        Ball.TryParse(content.Stroke.Pot!.Ball, out var ball);
        Pockets.TryParse(content.Stroke.Pot.Pocket, out var pocket);
        var cut = Cut.Of(_layout.White, _layout.Balls[_layout.SlotOf(ball)], pocket, _shape);
        _pot = (_layout.SlotOf(ball), cut);
        _stroke = content.Stroke.ToStroke();
        _stroke = _stroke with { AimDegrees = PotAim.Find(_layout.White, _layout.Balls[_pot.Item1], cut, _stroke, _shape)!.Value };
    }

    [Benchmark]
    public int Read() => TableReading.Read(_layout, _stroke, Skill.Named("county"), _shape).Count;

    [Benchmark]
    public double TwoThousandSamplesOnOneCore() => Spread.Sample(_layout, _stroke, _pot, Skill.Named("county"), _shape, workers: 1).Pot;
}
