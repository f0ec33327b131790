using System.Collections.Concurrent;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Tests.Work;

public class FairGateTests
{
    [Fact]
    public void A_short_plan_is_not_kept_waiting_by_a_long_one()
    {
        var gate = new FairGate(1);
        var order = new ConcurrentQueue<string>();
        using var begun = new ManualResetEventSlim();
        var shorter = new Thread(() => gate.ForEach(new(), 3, _ => order.Enqueue("short"), default));
        var longer = new Thread(() =>
            gate.ForEach(
                new(),
                60,
                i =>
                {
                    begun.Set();
                    // The first piece goes on until the short one waits for its turn, however long the machine takes to get there.
                    if (i == 0)
                        SpinWait.SpinUntil(() => shorter.ThreadState.HasFlag(ThreadState.WaitSleepJoin));
                    order.Enqueue("long");
                },
                default
            )
        );
        longer.Start();
        begun.Wait();
        shorter.Start();
        shorter.Join();
        longer.Join();
        // In turn, one piece each: three of the short one let in hardly more of the long one.
        Assert.InRange(order.ToList().LastIndexOf("short"), 3, 8);
        Assert.Equal(60, order.Count(o => o == "long"));
    }

    [Fact]
    public void No_more_run_at_once_than_there_are_cores()
    {
        var gate = new FairGate(2);
        var (now, most) = (0, 0);
        Parallel.For(0, 4, _ => gate.ForEach(
                new(),
                20,
                _ =>
                {
                    var running = Interlocked.Increment(ref now);
                    InterlockedMax(ref most, running);
                    // Work enough for the others to come in, if they may.
                    Thread.SpinWait(20_000);
                    Interlocked.Decrement(ref now);
                },
                default
            ));
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
        using var held = new ManualResetEventSlim();
        using var hold = new ManualResetEventSlim();
        using var cancel = new CancellationTokenSource();
        var holder = Task.Run(() =>
            gate.ForEach(
                new(),
                1,
                _ =>
                {
                    held.Set();
                    hold.Wait();
                },
                default
            )
        );
        held.Wait();
        Exception? told = null;
        var waiting = new Thread(() => told = Record.Exception(() => gate.ForEach(new(), 3, _ => { }, cancel.Token)));
        waiting.Start();
        SpinWait.SpinUntil(() => waiting.ThreadState.HasFlag(ThreadState.WaitSleepJoin));
        await cancel.CancelAsync();
        waiting.Join();
        Assert.IsAssignableFrom<OperationCanceledException>(told);
        hold.Set();
        await holder;
        var ran = 0;
        gate.ForEach(new(), 5, _ => Interlocked.Increment(ref ran), default);
        Assert.Equal(5, ran);
    }

    [Fact]
    public void A_piece_that_fails_is_told_as_it_is_and_no_more_are_begun()
    {
        var gate = new FairGate(1);
        var begun = 0;
        var told = Assert.Throws<InvalidOperationException>(() =>
            gate.ForEach(
                new(),
                50,
                i =>
                {
                    begun++;
                    if (i == 3)
                        throw new InvalidOperationException("the fourth");
                },
                default
            )
        );
        Assert.Equal(("the fourth", 4), (told.Message, begun));
        gate.ForEach(new(), 2, _ => begun++, default);
        Assert.Equal(6, begun);
    }

    [Fact]
    public void A_piece_may_have_pieces_of_its_own()
    {
        var (gate, done) = (new FairGate(2), 0);
        gate.ForEach(new(), 8, _ => gate.ForEach(new(), 8, _ => Interlocked.Increment(ref done), default), default);
        Assert.Equal(64, done);
    }

    /// <summary>man 5 proc_pid_stat (from memory): the niceness is the nineteenth field, 17th behind the name in brackets.</summary>
    [Fact]
    public void Its_threads_give_way_to_whatever_else_runs()
    {
        if (!OperatingSystem.IsLinux())
            return;
        static int Niceness() => int.Parse(File.ReadAllText("/proc/thread-self/stat").Split(") ")[^1].Split(' ')[16]);
        var (own, worker) = (Niceness(), -100);
        new FairGate(1).ForEach(new(), 1, _ => worker = Niceness(), default);
        Assert.Equal(own, Niceness());
        Assert.True(worker > own, $"{worker} beside {own}");
    }
}
