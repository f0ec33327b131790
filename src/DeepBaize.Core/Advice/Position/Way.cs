using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Advice.Position;

/// <summary>Where the white would end if the stroke is off in one thing.</summary>
/// <param name="White">Where it stops, m; if it goes in, where that is.</param>
/// <param name="InOff">It goes in.</param>
/// <param name="IsMet">It still does what is wanted.</param>
/// <param name="Next">Of the pots that are then on the likeliest; null if there is none, or it was not looked for.</param>
public sealed record Outcome(Vec2 White, bool InOff, bool IsMet, PotOption? Next);

/// <summary>How far one standard deviation of each error moves the place where the white stops, m.</summary>
public readonly record struct Sensitivity(double Direction, double Pace, double Height, double Side);

/// <summary>How likely a way is to come off.</summary>
/// <param name="Pot">Chance of the pot.</param>
/// <param name="Both">Chance of the pot and of what is wanted together.</param>
/// <param name="InOff">That the white goes in.</param>
/// <param name="Kiss">Of an unwanted second contact.</param>
/// <param name="Miscue">That the tip slips off.</param>
public readonly record struct WayOdds(Estimate Pot, Estimate Both, Estimate InOff, Estimate Kiss, Estimate Miscue);

/// <summary>A ball that had no way into any pocket, and has after the stroke.</summary>
/// <param name="Pockets">Pockets that it has a way into then.</param>
public sealed record FreedBall(Ball Ball, IReadOnlyList<Pocket> Pockets);

/// <summary>How the white runs into a ball after its first contact.</summary>
/// <param name="Slot">Slot of the ball that is run into.</param>
/// <param name="Fullness">How full it meets it, 1 full to 0.</param>
/// <param name="Speed">Of the white at that contact, m/s.</param>
/// <param name="Moved">Slots of all balls that the stroke moves, the white and the potted one apart.</param>
/// <param name="Stays">Whether the white stops within <see cref="Near"/> of the contact.</param>
public sealed record RunsInto(int Slot, double Fullness, double Speed, IReadOnlyList<int> Moved, bool Stays)
{
    /// <summary>Nearer than this the white has stayed where it met the ball, m.</summary>
    public const double Near = 0.2;

    /// <summary>Chance that the white meets this ball next and stays there; null until it has been sampled.</summary>
    public Estimate? Sticks { get; init; }

    /// <summary>Balls that the stroke frees if played without error; empty until they have been looked for.</summary>
    public IReadOnlyList<FreedBall> Freed { get; init; } = [];

    /// <summary>Slower than this it hardly touches the ball, m/s.</summary>
    private const double WorthTelling = 0.05;

    /// <summary>Reads it off a stroke that was recorded; null if the white runs into no second ball.</summary>
    public static RunsInto? Of(ShotRecord record, Simulator after, Layout layout, Pot pot)
    {
        var second = record.Events.Where(e => e.IsOfWhiteWithBall && e.Ball + e.Other != pot.Struck).FirstOrDefault();
        if (second == default || Contacts.Met(record, layout, second) is not { } met || met.Speed < WorthTelling)
            return null;
        var at = record.Pieces.FindLast(p => p.Ball == 0 && p.End <= second.Time + 1e-9).To;
        return new(
            second.Ball + second.Other,
            met.Fullness,
            met.Speed,
            [.. record.Pieces.Select(p => p.Ball).Distinct().Where(b => b > 0 && b != pot.Slot).Order()],
            after.IsOnTable(0) && after.At(0).DistanceTo(at) < Near
        );
    }
}

/// <summary>How a way runs.</summary>
/// <param name="Along">Slot of the ball on whose line the white comes in at the end, or −1.</param>
/// <param name="Into">The ball that the white runs into; null if none.</param>
public sealed record WayRun(Arrival Arrival, Route Route, int Along, Reach Reach, RunsInto? Into);

/// <summary>Where the white ends.</summary>
/// <param name="IsMet">Whether it does what is wanted if played without error; if not, it is the nearest there is.</param>
/// <param name="Off">How far it is then from what is wanted, m.</param>
/// <param name="Long">If struck a standard deviation too hard.</param>
/// <param name="Short">If struck a standard deviation too softly.</param>
public sealed record WayEnds(bool IsMet, double Off, Outcome Exact, Outcome Long, Outcome Short, Sensitivity Sensitivity);

/// <summary>What is drawn of a way.</summary>
/// <param name="WhitePath">m and seconds.</param>
/// <param name="Contact">Where the white's centre is when it meets its first ball, m.</param>
public sealed record WayDrawing(IReadOnlyList<PathPoint> WhitePath, Vec2 Contact);

/// <summary>A way to pot the ball and do with the white what is wanted.</summary>
/// <param name="Stroke">As aimed.</param>
/// <param name="Part">Of the pocket.</param>
/// <param name="Opens">What it does to a pack; null if nothing.</param>
public sealed record Way(Stroke Stroke, double Part, WayOdds Odds, WayRun Run, WayEnds Ends, WayDrawing Drawing, PackOpening? Opens = null)
{
    /// <summary>Names the way (what the white does, with which spin): it stays the same while a search goes on.</summary>
    public string Id { get; init; } = "";
}

/// <summary>How far a search is.</summary>
/// <param name="Strokes">Strokes played so far.</param>
/// <param name="Share">Of the work, 0–1.</param>
/// <param name="Ways">The best so far, best first.</param>
public sealed record WaySearchProgress(long Strokes, double Share, IReadOnlyList<Way> Ways);
