namespace DeepBaize.Web.Searches;

/// <summary>Where a search stands that cannot begin yet.</summary>
/// <param name="Ahead">So many begin before it.</param>
/// <param name="Seconds">About so long until it begins, by how long the last ones took.</param>
public sealed record SearchWait(int Ahead, double Seconds);

/// <summary>
/// So many places for searches of one kind; more wait. No client may hold all of them, and of those who wait the next is one of the
/// client that holds the fewest, in the order in which they came.
/// </summary>
/// <param name="most">Places in all.</param>
/// <param name="ofOne">Places that one client may hold.</param>
/// <param name="firstGuess">How long a search is taken to last until one has ended, s.</param>
public sealed class Places(int most, int ofOne, double firstGuess, TimeProvider time)
{
    private const double NewestWeighs = 0.3;

    private readonly object _lock = new();
    private readonly LinkedList<Place> _waiting = new();
    private readonly Dictionary<string, int> _held = [];
    private double _seconds = firstGuess;

    /// <summary>So many are under way.</summary>
    public int Running { get; private set; }

    public int Waiting
    {
        get
        {
            lock (_lock)
                return _waiting.Count;
        }
    }

    /// <summary>A place, or a place in the queue. Dispose it when the search is over, or given up.</summary>
    /// <param name="left">Called once it is given up.</param>
    public Place Ask(string client, Action left)
    {
        lock (_lock)
        {
            var place = new Place(this, client, left);
            if (Running < most && Held(client) < ofOne)
                Take(place);
            else
                _waiting.AddLast(place);
            return place;
        }
    }

    /// <summary>One search's place.</summary>
    public sealed class Place(Places places, string client, Action left) : IDisposable
    {
        private readonly TaskCompletionSource _turn = new(TaskCreationOptions.RunContinuationsAsynchronously);
        private long _since;
        private bool _isLeft;

        public string Client => client;

        /// <summary>Waits for its turn, and tells how long that will be each time a second has passed.</summary>
        public async Task TurnAsync(Action<SearchWait> tell, CancellationToken cancel)
        {
            while (!_turn.Task.IsCompleted)
            {
                tell(places.WaitOf(this));
                await Task.WhenAny(_turn.Task, Task.Delay(TimeSpan.FromSeconds(1), cancel));
                cancel.ThrowIfCancellationRequested();
            }
        }

        internal void Begin()
        {
            _since = places.Now;
            _turn.SetResult();
        }

        internal double Seconds => places.Since(_since);

        public void Dispose()
        {
            if (Interlocked.Exchange(ref _isLeft, true))
                return;
            places.Leave(this);
            left();
        }
    }

    private long Now => time.GetTimestamp();

    private double Since(long then) => time.GetElapsedTime(then).TotalSeconds;

    private int Held(string client) => _held.GetValueOrDefault(client);

    private void Take(Place place)
    {
        Running++;
        _held[place.Client] = Held(place.Client) + 1;
        place.Begin();
    }

    private void Leave(Place place)
    {
        lock (_lock)
        {
            if (_waiting.Remove(place))
                return;
            Running--;
            if (--_held[place.Client] == 0)
                _held.Remove(place.Client);
            _seconds += NewestWeighs * (place.Seconds - _seconds);
            while (Running < most && Next() is { } next)
            {
                _waiting.Remove(next);
                Take(next);
            }
        }
    }

    private Place? Next() => _waiting.Where(w => Held(w.Client) < ofOne).MinBy(w => Held(w.Client));

    private SearchWait WaitOf(Place place)
    {
        lock (_lock)
        {
            var ahead = _waiting.TakeWhile(w => w != place).Count();
            return new(ahead, Math.Ceiling(_seconds * (ahead + 1) / most));
        }
    }
}
