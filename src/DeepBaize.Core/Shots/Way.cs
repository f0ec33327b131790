using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Shots;

/// <summary>Which knobs a search may turn, and how far.</summary>
/// <param name="LowestTips">Height of the tip.</param>
/// <param name="HighestTips">Height of the tip.</param>
/// <param name="MostSideTips">0: plain only.</param>
/// <param name="Softest">Pace.</param>
/// <param name="Hardest">Pace.</param>
/// <param name="AnyPart">Whether the thick and the thin side of the pocket may be used too.</param>
public sealed record Freedom(double LowestTips, double HighestTips, double MostSideTips, double Softest, double Hardest, bool AnyPart)
{
    /// <summary>All that a careful player would use: a margin is kept to the miscue, and to all there is of pace.</summary>
    public static Freedom Full { get; } = new(-1.25, 1.25, 1, 1.5, 9, true);

    /// <exception cref="InputException">A figure out of range.</exception>
    public Freedom Checked(string path = "freedom")
    {
        var errors = new List<InputError>();
        void Check(string field, double value, double min, double max)
        {
            if (!(value >= min && value <= max)) errors.Add(new($"{path}.{field}", $"{value} is out of range.", $"{min:0.####} to {max:0.####}"));
        }
        Check("lowestTips", LowestTips, -Tip.Limit, Tip.Limit);
        Check("highestTips", HighestTips, LowestTips, Tip.Limit);
        Check("mostSideTips", MostSideTips, 0, Tip.Limit);
        Check("softest", Softest, Pace.Slowest, Pace.Hardest);
        Check("hardest", Hardest, Softest, Pace.Hardest);
        InputException.ThrowIfAny(errors);
        return this;
    }
}

/// <summary>What the white did after its first contact, as far as it matters: by this, ways differ.</summary>
/// <param name="Cushions">In order.</param>
/// <param name="Balls">Slots of the balls it ran into, in order.</param>
public sealed record Route(IReadOnlyList<Cushion> Cushions, IReadOnlyList<int> Balls)
{
    /// <summary>Gentler than this, a contact is not worth telling; m/s.</summary>
    private const double WorthTelling = 0.02;

    /// <param name="until">Slot of the ball at whose contact the story ends, or −1.</param>
    public static Route Of(ShotRecord record, int until = -1)
    {
        var (cushions, balls, met) = (new List<Cushion>(), new List<int>(), false);
        foreach (var e in record.Events)
        {
            if (e.Ball != 0 && e.Other != 0) continue;
            if (e.Kind == ShotEventKind.Ball)
            {
                if (met && e.Speed > WorthTelling) balls.Add(e.Ball + e.Other);
                if (met && e.Ball + e.Other == until) break;
                met = true;
            }
            else if (met && e.Kind == ShotEventKind.Cushion && e.Speed > WorthTelling) cushions.Add(Table.Cushions.At(e.X, e.Y));
        }
        return new(cushions, balls);
    }

    /// <summary>The same for routes that differ in no more than what happens after the first ball.</summary>
    public string Key => $"{string.Join('.', Cushions)}/{(Balls.Count > 0 ? Balls[0] : 0)}";
}

/// <summary>Where the white would end if the stroke is off in one thing.</summary>
/// <param name="X">m.</param>
/// <param name="Y">m.</param>
/// <param name="InOff">It goes in.</param>
/// <param name="IsMet">It still does what is wanted.</param>
/// <param name="Next">Of the pots that are then on the likeliest; null if there is none, or it was not looked for.</param>
public sealed record Outcome(double X, double Y, bool InOff, bool IsMet, PotOption? Next);

/// <summary>How far one standard deviation of each error moves the place where the white stops, m.</summary>
public readonly record struct Sensitivity(double Direction, double Pace, double Height, double Side);

/// <summary>A way to pot the ball and do with the white what is wanted.</summary>
/// <param name="Stroke">As aimed.</param>
/// <param name="Part">Of the pocket.</param>
/// <param name="Along">Slot of the ball on whose line the white comes in at the end, or −1.</param>
/// <param name="Pot">Chance of the pot.</param>
/// <param name="Both">Chance of the pot and of what is wanted together.</param>
/// <param name="IsMet">Whether it does it if played without error; if not, it is the nearest there is.</param>
/// <param name="Off">How far it is then from what is wanted, m.</param>
/// <param name="Long">If struck a standard deviation too hard.</param>
/// <param name="Short">If struck a standard deviation too softly.</param>
/// <param name="WhitePath">m and seconds.</param>
/// <param name="Contact">Where the white's centre is when it meets its first ball, m.</param>
public sealed record Way(
    Stroke Stroke, double Part, Arrival Arrival, Route Route, int Along, Reach Reach, double Pot, double Both, double InOff, double Kiss, int Samples,
    bool IsMet, double Off, Outcome Exact, Outcome Long, Outcome Short, Sensitivity Sensitivity, IReadOnlyList<PathPoint> WhitePath, (double X, double Y) Contact);

/// <summary>How far a search is.</summary>
/// <param name="Strokes">Strokes played so far.</param>
/// <param name="Share">Of the work, 0–1.</param>
/// <param name="Ways">The best so far, best first.</param>
public sealed record WaySearchProgress(long Strokes, double Share, IReadOnlyList<Way> Ways);
