using BenchmarkDotNet.Attributes;
using DeepBaize.Core.Advice.Decide;
using DeepBaize.Core.Advice.Escape;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Table;

namespace DeepBaize.Benchmarks;

/// <summary>
/// Targets on two cores: pots and safeties from a full mid-frame table first within 1 s, all within 4 s; escapes first within 0.3 s, all
/// within 2 s.
/// </summary>
[MemoryDiagnoser]
[MedianColumn]
public class SafetyBenchmarks
{
    private readonly TableShape _shape = new(Conditions.Default);
    private readonly Player _player = Player.Default;
    private readonly Situation _midFrame = Situation.Create(
        Layout.OfRest([
            new(Ball.White, 0.3, 0.3),
            .. Rack.Colours(),
            .. Rack.Pack().Take(6),
            new(Ball.Red(8), 3.3, 0.2),
            new(Ball.Red(9), 3.2, 1.55),
            new(Ball.Red(10), 2.2, 0.1),
            new(Ball.Red(11), 2.5, 1.3),
        ])
    );
    private readonly Situation _snooker = Situation.Create(
        Layout.OfRest([new(Ball.White, 0.55, 0.889), .. Rack.Colours(), new(Ball.Red(1), 2.95, 0.93)])
    );

    /// <summary>Until the first answer is told, and the search has then ended.</summary>
    private static int First<T>(Func<IProgress<T>, CancellationToken, int> search)
    {
        using var stop = new CancellationTokenSource();
        try
        {
            return search(new Stopper<T>(stop), stop.Token);
        }
        catch (OperationCanceledException)
        {
            return 1;
        }
    }

    private sealed class Stopper<T>(CancellationTokenSource stop) : IProgress<T>
    {
        public void Report(T value) => stop.Cancel();
    }

    [Benchmark]
    public int FirstSafeties() =>
        First<DecisionProgress>((p, c) => Decider.Solve(_midFrame, _player, _player, _shape, progress: p, cancel: c).Safeties.Count);

    [Benchmark]
    public int PotsAndSafeties() => Decider.Solve(_midFrame, _player, _player, _shape).Safeties.Count;

    [Benchmark]
    public int FirstEscapes() =>
        First<EscapeProgress>((p, c) => EscapeSearch.Solve(_snooker, _player, _player, _shape, progress: p, cancel: c).Count);

    [Benchmark]
    public int Escapes() => EscapeSearch.Solve(_snooker, _player, _player, _shape).Count;
}
