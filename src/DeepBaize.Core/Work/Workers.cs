namespace DeepBaize.Core.Work;

/// <summary>The workers of one question: all its parallel work goes through the gate, in its own turn.</summary>
/// <param name="cancel">Cancels the work.</param>
public sealed class Workers(FairGate gate, CancellationToken cancel = default)
{
    private readonly FairGate.Ticket _ticket = new();

    /// <summary>Workers that share the cores with whatever else runs in the process.</summary>
    public static Workers Shared(CancellationToken cancel = default) => new(FairGate.Shared, cancel);

    /// <summary>Workers that do one job at a time.</summary>
    public static Workers Single(CancellationToken cancel = default) => new(new(1), cancel);

    /// <summary>The gate that the work goes through.</summary>
    public FairGate Gate { get; } = gate;

    /// <summary>Cancels the work.</summary>
    public CancellationToken Cancel { get; } = cancel;

    /// <summary>Returns a count reduced to the share of the work that the gate allows, but not below <paramref name="least"/>.</summary>
    public int Bounded(int usual, int least) => Math.Max(Math.Min(usual, least), (int)(usual * Gate.WorkShare));

    /// <summary>Does the jobs 0 … count − 1, as many at once as the gate lets in; returns their results in order.</summary>
    /// <exception cref="OperationCanceledException">Cancelled; jobs that have started are finished first.</exception>
    public List<T> InParallel<T>(int count, Func<int, T> job)
    {
        var results = new T[count];
        Gate.ForEach(_ticket, count, i => results[i] = job(i), Cancel);
        return [.. results];
    }
}
