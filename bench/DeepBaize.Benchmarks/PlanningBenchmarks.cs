using BenchmarkDotNet.Attributes;
using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;
using DeepBaize.Data.Demo;

namespace DeepBaize.Benchmarks;

/// <summary>
/// Plans, on two cores. Targets from ten reds and six colours: the first plan within 0.15 s, four shots deep within 1 s, all within 4 s;
/// a cancelled
/// plan ends within 0.2 s.
/// </summary>
[MemoryDiagnoser]
[MedianColumn]
public class PlanningBenchmarks
{
    [Params("The line-up", "High on the black, full pack", "Colours on their spots")]
    public string Position { get; set; } = "";

    private readonly TableShape _shape = new(Conditions.Default);
    private Situation _situation = null!;

    [GlobalSetup]
    public void Setup()
    {
        var content = DemoPositions.All.Single(d => d.Name == Position).Content;
        _situation = Situation.Create(
            Layout.Create([.. content.Balls.Select(b => ((string?)b.Id, b.X, b.Y))], _shape),
            new() { On = content.Frame?.On is { } on ? BallsOn.Named(on, "on") : null }
        );
    }

    /// <summary>Until a plan has so many shots, or is complete; and until the search has then ended.</summary>
    private int Until(int shots)
    {
        using var stop = new CancellationTokenSource();
        var deepest = 0;
        try
        {
            return Solve(
                new Teller(p =>
                {
                    deepest = p.Plans.Count == 0 ? 0 : p.Plans[0].Shots.Count;
                    if (deepest >= shots || (p.Plans.Count > 0 && p.Plans[0].IsComplete))
                        stop.Cancel();
                }),
                stop.Token
            );
        }
        catch (OperationCanceledException)
        {
            return deepest;
        }
    }

    private int Solve(IProgress<PlanProgress>? progress = null, CancellationToken cancel = default) =>
        BreakPlanner
            .Solve(_situation, PlanPreferences.Default, Player.OfSkill("county"), _shape, progress: progress, cancel: cancel)
            .Plans.Count;

    [Benchmark]
    public int FirstPlan() => Until(1);

    [Benchmark]
    public int FourShotsDeep() => Until(4);

    [Benchmark]
    public int WholePlan() => Solve();

    [Benchmark]
    public int WhereToBe() =>
        PositionMap.Of(_situation, Player.OfSkill("county"), _shape, PlanPreferences.Default, Workers.Shared()).Bands.Count;

    private sealed class Teller(Action<PlanProgress> tell) : IProgress<PlanProgress>
    {
        public void Report(PlanProgress value) => tell(value);
    }
}
