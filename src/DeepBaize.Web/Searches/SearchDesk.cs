using System.Net.ServerSentEvents;
using DeepBaize.Core.Search;
using DeepBaize.Core.Work;
using DeepBaize.Web.Problems;
using DeepBaize.Web.Safeguards;
using DeepBaize.Web.Watching;
using Microsoft.Extensions.Options;

namespace DeepBaize.Web.Searches;

/// <summary>What searches may take of the machine: the section <c>Searches</c> of the settings.</summary>
public sealed record SearchLimits
{
    /// <summary>So many searches of a kind at once still leave each of them quick enough to be of use.</summary>
    public int AtOnce { get; init; } = 4;

    /// <summary>So many of them one client may hold.</summary>
    public int AtOnceOfClient { get; init; } = 3;

    /// <summary>So many a client may have under way and waiting, of all kinds.</summary>
    public int MostOfClient { get; init; } = 32;

    /// <summary>From its turn on, s: a search that takes longer is ended.</summary>
    public double Deadline { get; init; } = 120;

    /// <summary>Time limit of a judgement, s.</summary>
    public double JudgementDeadline { get; init; } = 30;

    /// <summary>
    /// Share of the usual work that a search does, above 0 and up to 1; less than 1 for tests of everything but the figures.
    /// </summary>
    public double WorkShare { get; init; } = 1;
}

/// <summary>Where a search is.</summary>
/// <param name="Stages">What it does, in order.</param>
/// <param name="Stage">Index of the stage that is under way; of the last once it is done.</param>
/// <param name="Seconds">About how long such a search takes from its turn on, by how long the last ones took, s.</param>
/// <param name="IsCut">Whether its deadline has ended it: what it has found stands, but is not all.</param>
public sealed record SearchStatus(IReadOnlyList<string> Stages, int Stage, double Seconds, bool IsCut);

/// <summary>What a search tells on its way.</summary>
internal interface ISearchProgress<T>
{
    /// <summary>Number of strokes or positions played so far.</summary>
    long Examined { get; }

    /// <summary>Share of the work that is done, 0–1; 1 is the last.</summary>
    double Share { get; }

    /// <summary>Returns it with where the search is.</summary>
    T With(SearchStatus status);
}

/// <summary>A kind of search, for whoever waits for it.</summary>
/// <param name="Name">Name of its events.</param>
/// <param name="Stages">What it does, in order.</param>
internal sealed record SearchKind(string Name, IReadOnlyList<SearchStage> Stages)
{
    public SearchStatus At(double share, double seconds, bool isCut)
    {
        var stage = 0;
        while (stage < Stages.Count - 1 && share >= Stages[stage].Until)
            stage++;
        return new([.. Stages.Select(s => s.Name)], stage, seconds, isCut);
    }
}

/// <summary>
/// Where all searches come by: they share the cores piece by piece (<see cref="FairGate"/>), a few of a kind at once, the others wait;
/// each speaks at least each second, ends by its deadline, and ends when its request does or the application stops.
/// </summary>
internal sealed class SearchDesk(
    IOptions<SearchLimits> limits,
    SearchMeter meter,
    TimeProvider time,
    IHostApplicationLifetime application,
    ILogger<SearchDesk> log
)
{
    private static readonly TimeSpan LongestSilence = TimeSpan.FromSeconds(0.9);

    private readonly Dictionary<string, int> _ofClient = [];

    public FairGate Gate { get; } = new(Environment.ProcessorCount) { WorkShare = Math.Clamp(limits.Value.WorkShare, 0.01, 1) };

    /// <summary>The gate of what is answered at once: its threads do not stand behind those of searches.</summary>
    private readonly FairGate _quick = new(Environment.ProcessorCount)
    {
        WorkShare = Math.Clamp(limits.Value.WorkShare, 0.01, 1),
        GivesWay = false,
    };

    private readonly Places _plans = Lane("plan", 6, limits, meter, time),
        _ways = Lane("ways", 1, limits, meter, time),
        _judgements = Lane("judgement", 0.2, limits, meter, time);

    private readonly Durations _durations = new();

    private static Places Lane(string kind, double firstGuess, IOptions<SearchLimits> limits, SearchMeter meter, TimeProvider time)
    {
        var places = new Places(limits.Value.AtOnce, limits.Value.AtOnceOfClient, firstGuess, time);
        meter.Watch(kind, () => places.Running, () => places.Waiting);
        return places;
    }

    /// <summary>A search of several seconds as a stream of what it tells: plans, decisions, openings.</summary>
    /// <param name="waiting">What is told while it waits for its turn, or before it has anything to tell (null).</param>
    /// <param name="work">The search, given where to tell and what ends it.</param>
    /// <exception cref="RefusedException">The client has too many already.</exception>
    public IResult Plan<T>(HttpContext http, SearchKind kind, Func<SearchWait?, T> waiting, Action<Action<T>, CancellationToken> work)
        where T : class, ISearchProgress<T> => Stream(_plans, http, kind, waiting, work);

    /// <summary>A search of about a second as a stream of what it tells.</summary>
    /// <inheritdoc cref="Plan"/>
    public IResult Ways<T>(HttpContext http, SearchKind kind, Func<SearchWait?, T> waiting, Action<Action<T>, CancellationToken> work)
        where T : class, ISearchProgress<T> => Stream(_ways, http, kind, waiting, work);

    /// <summary>What is answered at once: reading, spread, map, leave.</summary>
    /// <exception cref="RefusedException">The client has too many already, or it took too long.</exception>
    public async Task<T> JudgeAsync<T>(HttpContext http, Func<Workers, T> work)
    {
        using var end = new SearchEnd(http.RequestAborted, application.ApplicationStopping);
        using var place = Enter(_judgements, http);
        try
        {
            await place.TurnAsync(_ => { }, end.Token);
            end.After(limits.Value.JudgementDeadline);
            return await Task.Run(() => work(new(_quick, end.Token)));
        }
        catch (OperationCanceledException) when (end.Cause is { } cause)
        {
            throw cause;
        }
    }

    private IResult Stream<T>(
        Places places,
        HttpContext http,
        SearchKind kind,
        Func<SearchWait?, T> waiting,
        Action<Action<T>, CancellationToken> work
    )
        where T : class, ISearchProgress<T>
    {
        // Refused before the stream begins: after that there is no status to answer with.
        var place = Enter(places, http);
        http.Response.RegisterForDispose(place);
        return TypedResults.ServerSentEvents(Events(place, http, kind, waiting, work));
    }

    private async IAsyncEnumerable<SseItem<object>> Events<T>(
        Places.Place place,
        HttpContext http,
        SearchKind kind,
        Func<SearchWait?, T> waiting,
        Action<Action<T>, CancellationToken> work
    )
        where T : class, ISearchProgress<T>
    {
        using var end = new SearchEnd(http.RequestAborted, application.ApplicationStopping);
        using var told = meter.Begin(kind.Name);
        await using var events = LongWork
            .Stream(
                waiting(null),
                LongestSilence,
                async tell =>
                {
                    using (place)
                    {
                        await place.TurnAsync(wait => tell(waiting(wait)), end.Token);
                        told.Begun();
                        end.After(limits.Value.Deadline);
                        var begun = time.GetTimestamp();
                        await Background.Run(() => work(tell, end.Token));
                        _durations.Took(kind.Name, time.GetElapsedTime(begun).TotalSeconds);
                    }
                },
                http.RequestAborted
            )
            .GetAsyncEnumerator(CancellationToken.None);
        var (last, seconds) = (waiting(null), _durations.Of(kind.Name));
        while (true)
        {
            Exception? failure = null;
            try
            {
                if (!await events.MoveNextAsync())
                    yield break;
                last = events.Current;
                told.Told(last.Examined);
            }
            catch (Exception e) when (!http.RequestAborted.IsCancellationRequested)
            {
                failure = end.Cause ?? e;
            }
            if (failure is null)
            {
                yield return new(last.With(kind.At(last.Share, seconds, isCut: false)), kind.Name);
                continue;
            }
            // The status of the answer has been sent: what went wrong is an event, and the last. What was found before the deadline stands.
            yield return end.IsLate && last.Share > 0
                ? new(last.With(kind.At(last.Share, seconds, isCut: true)), kind.Name)
                : new(Describe(failure, http), "problem");
            yield break;
        }
    }

    private Microsoft.AspNetCore.Mvc.ProblemDetails Describe(Exception failure, HttpContext http)
    {
        if (failure is not RefusedException)
            log.LogError(failure, "Unexpected failure of {Path}", http.Request.Path);
        return (failure as RefusedException ?? RefusedException.Unexpected()).ToProblem().Complete();
    }

    private Places.Place Enter(Places places, HttpContext http)
    {
        var client = Clients.Of(http);
        lock (_ofClient)
        {
            var has = _ofClient.GetValueOrDefault(client);
            if (has >= limits.Value.MostOfClient)
                throw RefusedException.TooManySearches(limits.Value.MostOfClient);
            _ofClient[client] = has + 1;
        }
        return places.Ask(client, () => Left(client));
    }

    private void Left(string client)
    {
        lock (_ofClient)
            if (--_ofClient[client] == 0)
                _ofClient.Remove(client);
    }
}
