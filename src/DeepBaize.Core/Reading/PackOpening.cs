using System.Numerics;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Reading;

/// <summary>
/// How many more reds a stroke into a pack makes free for a pocket: not a number but a distribution, for no pack is laid twice alike and
/// no stroke played.
/// </summary>
/// <param name="Least">The 10 % quantile of the number.</param>
/// <param name="Most">In nine of ten at the most.</param>
/// <param name="Mostly">The commonest number.</param>
/// <param name="Mean">On the average.</param>
public sealed record PackOpening(int Least, int Most, int Mostly, Estimate Mean)
{
    /// <summary>Fewer reds that touch are no pack.</summary>
    private const int SmallestPack = 3;

    private const int Batches = 8,
        Batch = 8;

    private static readonly ErrorStream Telling = ErrorStream.Named("pack opening");

    /// <summary>By strokes with the player's errors; null if there is no pack, or the stroke as it is meant moves none of it.</summary>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static PackOpening? Of(Layout layout, Stroke stroke, Skill skill, TableShape shape, Workers workers)
    {
        var pack = PackOf(layout);
        if (BitOperations.PopCount(pack) < SmallestPack || !Moves(layout, stroke, pack, shape))
            return null;
        var lines = new PotLines(layout, shape);
        var before = lines.FreeReds;
        var scatter = Scatter.Of(layout, stroke, skill, shape);
        var counts = workers
            .InParallel(Batches, batch =>
            {
                var simulator = new Simulator(shape, Simulator.Coarse);
                var opened = new int[Batch];
                for (var i = 0; i < Batch; i++)
                {
                    workers.Cancel.ThrowIfCancellationRequested();
                    scatter.Error(Telling.At(batch * Batch + i)).Play(simulator, layout, stroke, null);
                    opened[i] = FreeRedsAfter(simulator, lines, shape) - before;
                }
                return opened;
            })
            .SelectMany(c => c)
            .ToList();
        var sorted = counts.Order().ToList();
        var mostly = sorted.GroupBy(c => c).MaxBy(g => g.Count())!.Key;
        return new(sorted[sorted.Count / 10], sorted[^(1 + sorted.Count / 10)], mostly, Sums.Of(counts, c => c).Mean);
    }

    /// <summary>The reds that touch another ball, a bit each.</summary>
    private static uint PackOf(Layout layout)
    {
        var pack = layout.Touching;
        for (var slot = 0; slot < layout.Balls.Count; slot++)
            if (!layout.Balls[slot].Ball.IsRed)
                pack &= ~(1u << slot);
        return pack;
    }

    private static bool Moves(Layout layout, Stroke stroke, uint pack, TableShape shape)
    {
        var record = new ShotRecord();
        stroke.Play(new Simulator(shape, Simulator.Coarse), layout, record);
        return record.Pieces.Any(p => (pack >> p.Ball & 1) != 0);
    }

    private static int FreeRedsAfter(Simulator after, PotLines like, TableShape shape)
    {
        var left = after.Left();
        // Reds that go in are no longer there to be freed: those are counted as what they are, gone.
        var gone = like.Reds - left.Count(b => b.Ball.IsRed);
        return after.IsOnTable(0) ? new PotLines(Layout.OfRest(left), shape, like).FreeReds + gone : like.FreeReds;
    }
}
