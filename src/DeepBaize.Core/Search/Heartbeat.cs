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
    private readonly Timer? _timer;
    private readonly object _lock = new();
    private double _share;
    private bool _isEnded;

    /// <param name="now">What there is so far, for a share of the work done.</param>
    public Heartbeat(IProgress<T>? progress, Func<double, T> now)
    {
        (_progress, _now) = (progress, now);
        if (progress is not null)
            _timer = new(_ => Beat(), null, Longest, Longest);
    }

    /// <summary>After a stage. A share of 1 is the last.</summary>
    public void Tell(double share)
    {
        lock (_lock)
        {
            if (_isEnded)
                return;
            _share = share;
            _isEnded = share >= 1;
            _progress?.Report(_now(share));
            if (!_isEnded)
                _timer?.Change(Longest, Longest);
        }
    }

    private void Beat()
    {
        lock (_lock)
            if (!_isEnded)
                _progress?.Report(_now(_share));
    }

    public void Dispose()
    {
        lock (_lock)
            _isEnded = true;
        _timer?.Dispose();
    }
}
