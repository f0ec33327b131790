namespace DeepBaize.Core.Work;

/// <summary>The workers of one question: all its parallel work goes through the gate, in its own turn.</summary>
/// <param name="cancel">Ends the work.</param>
public sealed class Workers(FairGate gate, CancellationToken cancel = default)
{
    private readonly FairGate.Ticket _ticket = new();

    /// <summary>For a question that shares with whatever else runs in the process.</summary>
    public static Workers Shared(CancellationToken cancel = default) => new(FairGate.Shared, cancel);

    /// <summary>One at a time.</summary>
    public static Workers Single(CancellationToken cancel = default) => new(new(1), cancel);

    public CancellationToken Cancel { get; } = cancel;

    /// <summary>Does the jobs 0…count−1, as many at once as the gate lets in; their results in order.</summary>
    /// <exception cref="OperationCanceledException">Cancelled; jobs that have begun are finished first.</exception>
    public List<T> InParallel<T>(int count, Func<int, T> job)
    {
        var results = new T[count];
        gate.ForEach(_ticket, count, i => results[i] = job(i), Cancel);
        return [.. results];
    }
}
