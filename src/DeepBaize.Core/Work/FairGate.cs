using System.Runtime.ExceptionServices;

namespace DeepBaize.Core.Work;

/// <summary>
/// Shares the cores among questions that are asked at once: one thread per core does their pieces of work, one from each question in turn,
/// however many pieces a question has waiting. Unless said otherwise its threads have a lower priority than the rest of the process, so
/// that a drag or a save is answered at once while plans are made.
/// </summary>
public sealed class FairGate(int cores)
{
    private static readonly TimeSpan Idle = TimeSpan.FromSeconds(10);

    private readonly object _lock = new();
    private readonly LinkedList<Ticket> _turns = new();
    private int _threads;
    private int _atRest;

    [ThreadStatic]
    private static bool _isWorker;

    /// <summary>A gate for code that runs without a server.</summary>
    public static FairGate Shared { get; } = new(Environment.ProcessorCount);

    /// <summary>Number of pieces that run at once.</summary>
    public int Cores { get; } = cores;

    /// <summary>
    /// Share of the usual work that a search may do, above 0 and up to 1. Below 1 answers come sooner and are rougher: for tests.
    /// </summary>
    public double WorkShare { get; init; } = 1;

    /// <summary>Whether its threads give way to the rest of the process; not where the work is what is to be answered at once.</summary>
    public bool GivesWay { get; init; } = true;

    /// <summary>The place of one question in the turns.</summary>
    public sealed class Ticket
    {
        internal LinkedList<Batch> Batches { get; } = new();
    }

    /// <summary>Pieces of one call. All state but the running pieces is guarded by the gate's lock.</summary>
    internal sealed class Batch(int count, Action<int> piece)
    {
        private int _next;
        private int _running;
        private Exception? _failure;

        public ManualResetEventSlim Done { get; } = new();

        public bool HasMore => _next < count;

        public int Take()
        {
            _running++;
            return _next++;
        }

        public void Run(int i)
        {
            try
            {
                piece(i);
            }
            catch (Exception e)
            {
                // The first failure is reported; no more pieces are started.
                Interlocked.CompareExchange(ref _failure, e, null);
            }
        }

        public bool HasFailed => Volatile.Read(ref _failure) is not null;

        public void Stop() => _next = count;

        public void Returned() => _running--;

        public void EndIfDone()
        {
            if (!HasMore && _running == 0)
                Done.Set();
        }

        public void ThrowIfFailed()
        {
            if (_failure is { } failure)
                ExceptionDispatchInfo.Throw(failure);
        }
    }

    /// <summary>Does the pieces of a question's work, as many at once as the cores and the other questions allow.</summary>
    /// <exception cref="OperationCanceledException">Cancelled; pieces that have begun are finished first.</exception>
    public void ForEach(Ticket ticket, int count, Action<int> piece, CancellationToken cancel)
    {
        cancel.ThrowIfCancellationRequested();
        // A piece that has pieces of its own does them itself: it has its core already.
        if (_isWorker)
        {
            for (var i = 0; i < count; i++)
            {
                cancel.ThrowIfCancellationRequested();
                piece(i);
            }
            return;
        }
        if (count == 0)
            return;
        var batch = new Batch(count, piece);
        Add(ticket, batch, count);
        using (cancel.Register(() => Stop(ticket, batch)))
            batch.Done.Wait(CancellationToken.None);
        batch.Done.Dispose();
        batch.ThrowIfFailed();
        cancel.ThrowIfCancellationRequested();
    }

    private void Add(Ticket ticket, Batch batch, int count)
    {
        lock (_lock)
        {
            if (ticket.Batches.Count == 0)
                _turns.AddLast(ticket);
            ticket.Batches.AddLast(batch);
            for (var more = Math.Min(count - _atRest, Cores - _threads); more > 0; more--)
            {
                _threads++;
                new Thread(Work) { IsBackground = true, Name = "search" }.Start();
            }
            Monitor.PulseAll(_lock);
        }
    }

    private void Stop(Ticket ticket, Batch batch)
    {
        lock (_lock)
        {
            batch.Stop();
            Withdraw(ticket, batch);
            batch.EndIfDone();
        }
    }

    private void Withdraw(Ticket ticket, Batch batch)
    {
        if (ticket.Batches.Remove(batch) && ticket.Batches.Count == 0)
            _turns.Remove(ticket);
    }

    private void Work()
    {
        _isWorker = true;
        if (GivesWay)
            Background.GiveWay();
        while (Next() is { } turn)
        {
            turn.Batch.Run(turn.Piece);
            lock (_lock)
            {
                turn.Batch.Returned();
                if (turn.Batch.HasFailed)
                {
                    turn.Batch.Stop();
                    Withdraw(turn.Ticket, turn.Batch);
                }
                turn.Batch.EndIfDone();
            }
        }
    }

    /// <summary>The next piece in turn; null if there has been none for a while.</summary>
    private (Ticket Ticket, Batch Batch, int Piece)? Next()
    {
        lock (_lock)
        {
            while (_turns.Count == 0)
            {
                _atRest++;
                var isCalled = Monitor.Wait(_lock, Idle);
                _atRest--;
                if (isCalled || _turns.Count > 0)
                    continue;
                _threads--;
                return null;
            }
            var ticket = _turns.First!.Value;
            _turns.RemoveFirst();
            var batch = ticket.Batches.First!.Value;
            var piece = batch.Take();
            if (!batch.HasMore)
                ticket.Batches.RemoveFirst();
            // Behind those that have waited in the meantime.
            if (ticket.Batches.Count > 0)
                _turns.AddLast(ticket);
            return (ticket, batch, piece);
        }
    }
}
