using System.Collections.Concurrent;
using System.Diagnostics;
using System.Diagnostics.Metrics;

namespace DeepBaize.Web.Watching;

/// <summary>What can be seen of Deep Baize from outside, beside what the framework counts: docs/operating.md has the list.</summary>
internal sealed class SearchMeter : IDisposable
{
    public const string Name = "DeepBaize";

    /// <summary>A search as a span of its own.</summary>
    public static readonly ActivitySource Spans = new(Name);

    private readonly Meter _meter = new(Name);
    private readonly ConcurrentDictionary<string, Func<int>> _running = new(),
        _waiting = new();
    private readonly Histogram<double> _firstAnswer;
    private readonly Counter<long> _examined;
    private readonly Counter<long> _saves;
    private readonly Counter<long> _refusals;

    public SearchMeter()
    {
        _firstAnswer = _meter.CreateHistogram<double>(
            "search.first_answer",
            "s",
            "From the request to the first answer that is more than a place in the queue",
            advice: new() { HistogramBucketBoundaries = [0.05, 0.1, 0.25, 0.5, 1, 2, 5, 10, 30, 60, 120] }
        );
        _meter.CreateObservableGauge("searches.running", () => Counted(_running), null, "Searches under way");
        _meter.CreateObservableGauge("searches.waiting", () => Counted(_waiting), null, "Searches waiting for a place");
        _examined = _meter.CreateCounter<long>("search.samples", null, "Strokes and positions played by searches");
        _saves = _meter.CreateCounter<long>("saves", null, "Requests that changed what is stored");
        _refusals = _meter.CreateCounter<long>("refusals", null, "Requests answered by a problem, by its code");
    }

    /// <summary>Has the searches of a kind counted whenever somebody asks.</summary>
    public void Watch(string kind, Func<int> running, Func<int> waiting)
    {
        _running[kind] = running;
        _waiting[kind] = waiting;
    }

    private static IEnumerable<Measurement<int>> Counted(ConcurrentDictionary<string, Func<int>> kinds) =>
        kinds.Select(k => new Measurement<int>(k.Value(), new KeyValuePair<string, object?>("kind", k.Key)));

    public void Saved(string kind) => _saves.Add(1, new KeyValuePair<string, object?>("kind", kind));

    public void Refused(string code) => _refusals.Add(1, new KeyValuePair<string, object?>("code", code));

    public Search Begin(string kind) => new(this, kind);

    /// <summary>What is seen of one search.</summary>
    internal sealed class Search(SearchMeter meter, string kind) : IDisposable
    {
        private readonly long _asked = Stopwatch.GetTimestamp();
        private readonly Activity? _span = Spans.StartActivity($"search {kind}");
        private bool _isAnswered;
        private long _examined;

        public void Begun() => _span?.AddEvent(new("begun"));

        public void Told(long examined)
        {
            if (examined <= _examined)
                return;
            KeyValuePair<string, object?> tag = new("kind", kind);
            meter._examined.Add(examined - _examined, tag);
            _examined = examined;
            if (_isAnswered)
                return;
            _isAnswered = true;
            meter._firstAnswer.Record(Stopwatch.GetElapsedTime(_asked).TotalSeconds, tag);
        }

        public void Dispose()
        {
            _span?.SetTag("samples", _examined);
            _span?.Dispose();
        }
    }

    public void Dispose() => _meter.Dispose();
}
