using DeepBaize.Core.Work;

namespace DeepBaize.Core.Tests.Work;

public class FairGateTests
{
    [Fact]
    public async Task A_short_plan_is_not_kept_waiting_by_a_long_one()
    {
        var gate = new FairGate(1);
        var (longDone, longWhenShortEnded) = (0, -1);
        using var begun = new ManualResetEventSlim();
        var longer = Task.Run(() =>
            gate.ForEach(
                new(),
                60,
                _ =>
                {
                    begun.Set();
                    Thread.Sleep(5);
                    Interlocked.Increment(ref longDone);
                },
                default
            )
        );
        begun.Wait();
        await Task.Run(() => gate.ForEach(new(), 3, _ => Thread.Sleep(5), default));
        longWhenShortEnded = Volatile.Read(ref longDone);
        await longer;
        // In turn, one piece each: three of the short one let in hardly more of the long one.
        Assert.InRange(longWhenShortEnded, 0, 20);
        Assert.Equal(60, longDone);
    }

    [Fact]
    public void No_more_run_at_once_than_there_are_cores()
    {
        var gate = new FairGate(2);
        var (now, most) = (0, 0);
        Parallel.For(
            0,
            4,
            _ =>
                gate.ForEach(
                    new(),
                    20,
                    _ =>
                    {
                        var running = Interlocked.Increment(ref now);
                        InterlockedMax(ref most, running);
                        Thread.Sleep(1);
                        Interlocked.Decrement(ref now);
                    },
                    default
                )
        );
        Assert.InRange(most, 1, 2);

        static void InterlockedMax(ref int target, int value)
        {
            for (var seen = Volatile.Read(ref target); seen < value; seen = Volatile.Read(ref target))
                if (Interlocked.CompareExchange(ref target, value, seen) == seen)
                    return;
        }
    }

    [Fact]
    public async Task Who_gives_up_waiting_leaves_the_cores_to_the_others()
    {
        var gate = new FairGate(1);
        using var hold = new ManualResetEventSlim();
        using var cancel = new CancellationTokenSource();
        var holder = Task.Run(() => gate.ForEach(new(), 1, _ => hold.Wait(), default));
        await Task.Delay(50);
        var waiting = Task.Run(() => gate.ForEach(new(), 3, _ => { }, cancel.Token));
        await Task.Delay(50);
        await cancel.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => waiting);
        hold.Set();
        await holder;
        var ran = 0;
        gate.ForEach(new(), 5, _ => Interlocked.Increment(ref ran), default);
        Assert.Equal(5, ran);
    }
}
