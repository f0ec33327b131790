using System.Diagnostics;

namespace DeepBaize.Core.Search;

/// <summary>
/// Tells how far a search is: after each stage, and, so that nobody takes a long stage for the end of it, at least each second. What is
/// found does not depend on it.
/// </summary>
public sealed class Heartbeat<T> : IDisposable
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(0.9);

    private readonly IProgress<T>? _progress;
    private readonly Func<double, T> _now;
    private readonly object _lock = new();
    private T _last;
    private long _told = Stopwatch.GetTimestamp();
    private bool _isEnded;

    /// <param name="now">What there is so far, for a share of the work done.</param>
    public Heartbeat(IProgress<T>? progress, Func<double, T> now)
    {
        (_progress, _now, _last) = (progress, now, now(0));
        // A thread of its own: the pool's may all be at work on the search.
        if (progress is not null)
            new Thread(Beat) { IsBackground = true, Name = "heartbeat" }.Start();
    }

    /// <summary>After a stage. A share of 1 is the last.</summary>
    public void Tell(double share)
    {
        lock (_lock)
        {
            if (_isEnded)
                return;
            (_last, _told) = (_now(share), Stopwatch.GetTimestamp());
            _progress?.Report(_last);
            if (share >= 1)
                End();
        }
    }

    private void Beat()
    {
        lock (_lock)
            while (!_isEnded)
            {
                var left = Longest - Stopwatch.GetElapsedTime(_told);
                if (left > TimeSpan.Zero)
                    Monitor.Wait(_lock, left);
                else
                {
                    _told = Stopwatch.GetTimestamp();
                    // What was told last: what there is by now is the search's own while it works on it.
                    _progress!.Report(_last);
                }
            }
    }

    /// <summary>Ends the reports.</summary>
    public void Dispose()
    {
        lock (_lock)
            End();
    }

    private void End()
    {
        _isEnded = true;
        Monitor.PulseAll(_lock);
    }
}
