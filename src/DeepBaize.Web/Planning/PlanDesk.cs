using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Search;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;

namespace DeepBaize.Web.Planning;

/// <summary>Where a plan stands that cannot begin yet.</summary>
/// <param name="Ahead">So many begin before it.</param>
/// <param name="Seconds">About so long until it begins, by how long the last ones took.</param>
public sealed record PlanWait(int Ahead, double Seconds);

/// <summary>
/// Lets in the plans that are made at once. A few share the cores, a piece of work in turn (<see cref="FairGate"/>); more wait in the order
/// in which they came.
/// </summary>
public sealed class PlanDesk(TimeProvider time)
{
    /// <summary>So many plans at once still leave each of them quick enough to be of use.</summary>
    public const int MostAtOnce = 4;

    private const double FirstGuessSeconds = 6,
        NewestWeighs = 0.3;

    private readonly object _lock = new();
    private readonly LinkedList<TaskCompletionSource> _waiting = new();
    private int _running;
    private double _seconds = FirstGuessSeconds;

    public FairGate Gate { get; } = new(Environment.ProcessorCount);

    /// <summary>
    /// Waits for a place, and tells how long that will be each time it changes or a second has passed. Dispose what is returned when the
    /// plan is made.
    /// </summary>
    public async Task<IDisposable> EnterAsync(Action<PlanWait> tell, CancellationToken cancel)
    {
        TaskCompletionSource? turn = null;
        lock (_lock)
        {
            if (_running < MostAtOnce)
                _running++;
            else
                _waiting.AddLast(turn = new(TaskCreationOptions.RunContinuationsAsynchronously));
        }
        if (turn is null)
            return new Place(this, time.GetTimestamp());
        try
        {
            while (!turn.Task.IsCompleted)
            {
                tell(WaitOf(turn));
                await Task.WhenAny(turn.Task, Task.Delay(TimeSpan.FromSeconds(1), cancel));
                cancel.ThrowIfCancellationRequested();
            }
            return new Place(this, time.GetTimestamp());
        }
        catch (OperationCanceledException)
        {
            lock (_lock)
            {
                // Let in at the same moment: the place goes to the next.
                if (!_waiting.Remove(turn))
                    LetIn();
            }
            throw;
        }
    }

    /// <summary>Long work as a stream, once there is a place for it.</summary>
    /// <param name="waiting">What is told while it waits.</param>
    /// <param name="work">The work, given where to tell.</param>
    public IAsyncEnumerable<T> Stream<T>(Func<PlanWait, T> waiting, Action<Action<T>> work, CancellationToken cancel) =>
        LongWork.Stream<T>(
            async tell =>
            {
                using var place = await EnterAsync(wait => tell(waiting(wait)), cancel);
                work(tell);
            },
            cancel
        );

    private PlanWait WaitOf(TaskCompletionSource turn)
    {
        lock (_lock)
        {
            var ahead = _waiting.TakeWhile(w => w != turn).Count();
            return new(ahead, Math.Ceiling(_seconds * (ahead + 1) / MostAtOnce));
        }
    }

    private void LetIn()
    {
        if (_waiting.First is { } first)
        {
            _waiting.RemoveFirst();
            first.Value.SetResult();
        }
        else
            _running--;
    }

    private sealed class Place(PlanDesk desk, long since) : IDisposable
    {
        private int _isLeft;

        public void Dispose()
        {
            if (Interlocked.Exchange(ref _isLeft, 1) != 0)
                return;
            lock (desk._lock)
            {
                desk._seconds += NewestWeighs * (desk.Since(since) - desk._seconds);
                desk.LetIn();
            }
        }
    }

    private double Since(long since) => time.GetElapsedTime(since).TotalSeconds;
}

/// <summary>Makes one small plan when the application starts, so that the code is compiled before the first user asks.</summary>
public sealed class PlanWarmUp(PlanDesk desk) : BackgroundService
{
    protected override Task ExecuteAsync(CancellationToken stopping) =>
        Task.Run(
            () =>
            {
                var shape = new TableShape(Conditions.Default);
                var colours = Layout.OfRest([new(Ball.White, 1.0, 0.75), .. Rack.Colours()]);
                try
                {
                    BreakPlanner.Solve(
                        Situation.Create(colours),
                        PlanPreferences.Default,
                        Player.Default,
                        shape,
                        desk.Gate,
                        cancel: stopping
                    );
                }
                catch (OperationCanceledException)
                {
                    // The application ends before it has quite begun.
                }
            },
            stopping
        );
}
