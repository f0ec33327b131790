using System.Runtime.CompilerServices;
using System.Threading.Channels;

namespace DeepBaize.Web.Searches;

/// <summary>Work that takes seconds, as a stream of what it tells on the way.</summary>
internal static class LongWork
{
    /// <param name="first">Told at once.</param>
    /// <param name="silence">After so long without a word what was told last is told again: whoever listens knows that it goes on.</param>
    /// <param name="work">The work, given where to tell.</param>
    /// <param name="cancel">Ends the listening; what ends the work is its own affair.</param>
    public static async IAsyncEnumerable<T> Stream<T>(
        T first,
        TimeSpan silence,
        Func<Action<T>, Task> work,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        var channel = Channel.CreateUnbounded<T>();
        _ = Task.Run(
            async () =>
            {
                try
                {
                    await work(told => channel.Writer.TryWrite(told));
                    channel.Writer.Complete();
                }
                catch (Exception e)
                {
                    channel.Writer.Complete(e);
                }
            },
            CancellationToken.None
        );
        var last = first;
        yield return first;
        while (true)
        {
            var more = channel.Reader.WaitToReadAsync(cancel).AsTask();
            while (await Task.WhenAny(more, Task.Delay(silence, CancellationToken.None)) != more)
                yield return last;
            if (!await more)
                yield break;
            while (channel.Reader.TryRead(out var told))
                yield return last = told;
        }
    }
}

/// <summary>Passes on what long work tells, on the thread that tells it.</summary>
internal sealed class Teller<T>(Action<T> tell) : IProgress<T>
{
    public void Report(T value) => tell(value);
}

/// <summary>What ends a search: its request, its deadline, or the application.</summary>
internal sealed class SearchEnd : IDisposable
{
    private readonly CancellationTokenSource _deadline = new();
    private readonly CancellationTokenSource _any;
    private readonly CancellationToken _stopping;

    public SearchEnd(CancellationToken aborted, CancellationToken stopping)
    {
        _stopping = stopping;
        _any = CancellationTokenSource.CreateLinkedTokenSource(aborted, stopping, _deadline.Token);
    }

    public CancellationToken Token => _any.Token;

    /// <summary>From now on it has so many seconds.</summary>
    public void After(double seconds) => _deadline.CancelAfter(TimeSpan.FromSeconds(seconds));

    /// <summary>Whether its deadline ended it.</summary>
    public bool IsLate => _deadline.IsCancellationRequested && !_stopping.IsCancellationRequested;

    /// <summary>Why it ended; null if nobody waits for it any more, or it has not.</summary>
    public Problems.RefusedException? Cause =>
        _stopping.IsCancellationRequested ? Problems.RefusedException.Stopping()
        : _deadline.IsCancellationRequested ? Problems.RefusedException.TookTooLong()
        : null;

    public void Dispose()
    {
        _any.Dispose();
        _deadline.Dispose();
    }
}
