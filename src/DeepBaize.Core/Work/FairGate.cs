namespace DeepBaize.Core.Work;

/// <summary>
/// Shares the cores among plans that are made at once: no more pieces of work run than there are cores, and those that wait are let in
/// in turn, one from each plan, however many pieces a plan has waiting.
/// </summary>
public sealed class FairGate(int cores)
{
    private readonly object _lock = new();
    private readonly LinkedList<Ticket> _turns = new();
    private int _free = cores;

    /// <summary>For whatever runs alone.</summary>
    public static FairGate Shared { get; } = new(Environment.ProcessorCount);

    public int Cores { get; } = cores;

    /// <summary>One plan's place in the turns.</summary>
    public sealed class Ticket
    {
        internal Queue<TaskCompletionSource> Waiting { get; } = new();
    }

    /// <summary>Does the pieces of a plan's work, as many at once as the cores and the other plans allow.</summary>
    /// <exception cref="OperationCanceledException">Cancelled; pieces that have begun are finished first.</exception>
    public void ForEach(Ticket ticket, int count, Action<int> piece, CancellationToken cancel) =>
        Parallel.For(
            0,
            count,
            new() { MaxDegreeOfParallelism = Cores, CancellationToken = cancel },
            i =>
            {
                Enter(ticket, cancel);
                try
                {
                    piece(i);
                }
                finally
                {
                    Leave();
                }
            }
        );

    private void Enter(Ticket ticket, CancellationToken cancel)
    {
        TaskCompletionSource turn;
        lock (_lock)
        {
            if (_free > 0)
            {
                _free--;
                return;
            }
            turn = new(TaskCreationOptions.RunContinuationsAsynchronously);
            if (ticket.Waiting.Count == 0)
                _turns.AddLast(ticket);
            ticket.Waiting.Enqueue(turn);
        }
        try
        {
            turn.Task.Wait(cancel);
        }
        catch (OperationCanceledException)
        {
            // Let in at the same moment: the place is given back.
            if (!turn.TrySetCanceled(CancellationToken.None))
                Leave();
            throw;
        }
    }

    private void Leave()
    {
        lock (_lock)
        {
            while (_turns.First is { } first)
            {
                var ticket = first.Value;
                _turns.RemoveFirst();
                var turn = ticket.Waiting.Dequeue();
                // Behind those that have waited in the meantime.
                if (ticket.Waiting.Count > 0)
                    _turns.AddLast(ticket);
                if (turn.TrySetResult())
                    return;
            }
            _free++;
        }
    }
}
