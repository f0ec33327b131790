using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Rules;

/// <summary>
/// A frame between two strokes: scores, who is at the table, what is on, what is left. Official Rules of Snooker, Section 3 (from memory);
/// a rule is
/// named beside what follows from it. Where balls lie is not in it: a position carries that.
/// </summary>
/// <param name="Reds">Still on the table.</param>
/// <param name="Colours">Still on the table, in the order of their values.</param>
/// <param name="On">What must be struck first.</param>
/// <param name="Scores">Of the two players.</param>
/// <param name="Turn">Who is at the table, 0 or 1.</param>
/// <param name="Break">Points of the present break.</param>
/// <param name="FreeBall">Whether the striker may nominate any ball as the ball on (rule 12).</param>
/// <param name="InHand">Whether the white is played from the D.</param>
/// <param name="Fouled">Whether the last stroke was a foul, so that the striker may ask the offender to play again (rule 13).</param>
/// <param name="Misses">Misses called in a row from the same place (rule 14).</param>
/// <param name="Winner">Once the frame is over; −1 before.</param>
/// <param name="Repeats">
/// No frame but an exercise: a single colour that is on comes back to its spot and is on again, as in "the black off its spot".
/// </param>
public sealed record Frame(
    int Reds,
    IReadOnlyList<Ball> Colours,
    BallOn On,
    (int First, int Second) Scores,
    int Turn,
    int Break,
    bool FreeBall = false,
    bool InHand = false,
    bool Fouled = false,
    int Misses = 0,
    int Winner = -1,
    bool Repeats = false
)
{
    public const int MostReds = 15,
        LongestMisses = 3,
        HighestScore = 999;

    /// <summary>A free ball and fifteen reds with blacks, then the colours.</summary>
    public const int HighestBreakThereIs = 155;

    /// <summary>So far an exercise that repeats itself is counted: common practice, no source.</summary>
    public const int ExerciseTarget = 200;

    /// <summary>Fifteen reds, all colours, the first player in the D.</summary>
    public static Frame Start { get; } = new(MostReds, Ball.Colours, BallOn.Red, (0, 0), 0, 0, InHand: true);

    public bool IsOver => Winner >= 0;

    /// <summary>Whether a ball may be played at next: one that is on, or with a free ball any.</summary>
    public bool MayPlay(Ball ball) => FreeBall || On.Includes(ball);

    /// <summary>The least that a foul can cost now: four, or the ball on's value if that is higher (rule 11).</summary>
    public int LeastPenalty => Math.Max(Values.LeastPenalty, On.AsColour() is { } due ? Values.Of(due) : 0);

    public int ScoreOf(int player) => player == 0 ? Scores.First : Scores.Second;

    /// <summary>By how much the player at the table leads; negative if behind.</summary>
    public int Lead => ScoreOf(Turn) - ScoreOf(1 - Turn);

    /// <summary>
    /// The most that can still be scored from here without fouls: the black with every red, then the colours; with a free ball one red
    /// more.
    /// </summary>
    public int PointsLeft
    {
        get
        {
            if (IsOver)
                return 0;
            if (Repeats)
                return Math.Max(0, ExerciseTarget - Break);
            var colours = Colours.Sum(Values.Of);
            return On switch
            {
                BallOn.Red => Reds * (Values.Red + Values.Black) + colours + (FreeBall ? Values.Red + Values.Black : 0),
                BallOn.Colour => Values.Black + Reds * (Values.Red + Values.Black) + colours,
                _ => colours + (FreeBall ? Values.Of(On.AsColour()!.Value) : 0),
            };
        }
    }

    /// <summary>The highest break still possible to the player at the table.</summary>
    public int HighestBreak => Break + PointsLeft;

    /// <summary>
    /// Points that the player at the table still has to make until the other can no longer draw level with what is then left: each point
    /// made both adds to the lead
    /// and is gone from the table. 0 if that is so already; it may be more than is left.
    /// </summary>
    public int PointsToWin => Lead > PointsLeft ? 0 : (PointsLeft - Lead) / 2 + 1;

    /// <summary>
    /// How many fouls of four points the player at the table needs to draw level with all that is left; 0 if the frame can be had without.
    /// </summary>
    public int SnookersRequired => Lead + PointsLeft >= 0 ? 0 : (-(Lead + PointsLeft) + Values.LeastPenalty - 1) / Values.LeastPenalty;

    /// <summary>A frame under way, checked against itself.</summary>
    /// <exception cref="InputException">A state that cannot be.</exception>
    public static Frame Create(
        int reds,
        IReadOnlyList<Ball> colours,
        BallOn on,
        int first,
        int second,
        int turn,
        int breakPoints,
        bool freeBall = false,
        bool inHand = false,
        bool repeats = false,
        string path = "frame"
    )
    {
        var errors = new List<InputError>();
        var order = colours.OrderBy(Values.Of).ToList();
        if (reds is < 0 or > MostReds)
            errors.Add(new($"{path}.reds", $"There are {reds} reds.", $"0 to {MostReds}"));
        if (order.Distinct().Count() != order.Count || order.Any(c => !c.IsColour))
            errors.Add(
                new($"{path}.colours", "A colour is there twice, or is none.", "yellow, green, brown, blue, pink, black, each once")
            );
        else if ((reds > 0 || on is BallOn.Red or BallOn.Colour) && order.Count < Ball.Colours.Count)
            errors.Add(new($"{path}.colours", "A colour is missing while reds remain, or before its turn.", "all six colours"));
        else if (order.Count == 0)
            errors.Add(new($"{path}.colours", "There is no ball left to pot.", "at least the black"));
        else if (!repeats && !order.SequenceEqual(Ball.Colours.Skip(Ball.Colours.Count - order.Count)))
            errors.Add(
                new(
                    $"{path}.colours",
                    "The colours go in the order of their values.",
                    "none missing that is worth more than one that is left"
                )
            );
        if (on == BallOn.Red && reds == 0)
            errors.Add(new($"{path}.on", "A red is on, but there is none on the table.", "colour, or the colour of the least value"));
        if (on >= BallOn.Yellow && reds > 0)
            errors.Add(new($"{path}.on", "A single colour is on only once the reds are gone.", "red or colour"));
        if (
            on >= BallOn.Yellow
            && reds == 0
            && order.Count > 0
            && (repeats ? !order.Contains(on.AsColour()!.Value) : on.AsColour() != order[0])
        )
            errors.Add(new($"{path}.on", "The colours are on in the order of their values.", order[0].Id));
        if (repeats && on < BallOn.Yellow)
            errors.Add(
                new(
                    $"{path}.repeats",
                    "Only a single colour can be potted again and again.",
                    "yellow, green, brown, blue, pink or black on"
                )
            );
        if (turn is not (0 or 1))
            errors.Add(new($"{path}.turn", $"There is no player {turn}.", "0 or 1"));
        if (breakPoints < 0 || breakPoints > (repeats ? HighestScore : HighestBreakThereIs))
            errors.Add(new($"{path}.break", $"A break of {breakPoints} cannot be.", $"0 to {HighestBreakThereIs}"));
        foreach (var (name, score) in new[] { ("first", first), ("second", second) })
            if (score is < 0 or > HighestScore)
                errors.Add(new($"{path}.{name}", $"A score of {score} cannot be.", $"0 to {HighestScore}"));
        if (turn is 0 or 1 && breakPoints > (turn == 0 ? first : second))
            errors.Add(new($"{path}.break", "The break is more than the player's score.", "up to the score of the player at the table"));
        InputException.ThrowIfAny(errors);
        return new(reds, order, on, (first, second), turn, breakPoints, freeBall, inHand, Repeats: repeats);
    }

    /// <summary>The value of the ball on, of which penalties are made: a red's 1, the nominated colour's, the due colour's.</summary>
    private int ValueOn(Ball? nominated) =>
        On switch
        {
            BallOn.Red => Values.Red,
            // A colour was due but none named: the referee takes the highest (rule 11).
            BallOn.Colour => nominated is { IsColour: true } n ? Values.Of(n) : Values.Black,
            _ => Values.Of(On.AsColour()!.Value),
        };

    /// <summary>Rules on a stroke.</summary>
    /// <param name="ruledMiss">The referee called a miss (rule 14), with a ball on in sight full.</param>
    /// <param name="leavesSnookered">After a foul: whether the next striker is snookered, so that there is a free ball (rule 12).</param>
    /// <exception cref="InvalidOperationException">The frame is over.</exception>
    public Ruling Play(StrokeFacts facts, bool ruledMiss = false, bool leavesSnookered = false)
    {
        if (IsOver)
            throw new InvalidOperationException("The frame is over.");
        var isFree = FreeBall && facts.Nominated is not null && !IsOn(facts.Nominated.Value);
        var fouls = Fouls(facts, isFree);
        return fouls.Count > 0 ? Foul(facts, fouls, isFree, ruledMiss, leavesSnookered) : Fair(facts, isFree);
    }

    private bool IsOn(Ball ball) => On.Includes(ball);

    /// <summary>Whether a ball counts as on in this stroke: the free ball does, beside the ball on itself.</summary>
    private bool Counts(Ball ball, StrokeFacts facts, bool isFree) =>
        On == BallOn.Colour ? ball == (facts.Nominated ?? facts.First) : IsOn(ball) || (isFree && ball == facts.Nominated);

    private List<FoulReason> Fouls(StrokeFacts facts, bool isFree)
    {
        var fouls = new List<FoulReason>();
        if (facts.Potted.Contains(Ball.White))
            fouls.Add(FoulReason.InOff);
        if (facts.First is not { } first)
            fouls.Add(FoulReason.MissedAll);
        else if (isFree ? first != facts.Nominated : !Counts(first, facts, isFree))
            fouls.Add(FoulReason.WrongBallFirst);
        if (facts.Potted.Any(b => b != Ball.White && !Counts(b, facts, isFree)))
            fouls.Add(FoulReason.WrongBallPotted);
        if (
            facts is { First: { } one, WithFirst: { } other }
            && !(one.IsRed && other.IsRed && On == BallOn.Red)
            && !(isFree && Counts(one, facts, isFree) && Counts(other, facts, isFree))
        )
            fouls.Add(FoulReason.TwoAtOnce);
        if (facts.Gone.Count > 0)
            fouls.Add(FoulReason.OffTable);
        // With only pink and black left it is no foul to leave a snooker behind the free ball (rule 12).
        if (isFree && facts.SnookersBehindFreeBall && !(Reds == 0 && Colours.Count == 2))
            fouls.Add(FoulReason.SnookeredBehindFreeBall);
        if (facts.Other is not null)
            fouls.Add(FoulReason.Other);
        return fouls;
    }

    private Ruling Foul(StrokeFacts facts, List<FoulReason> fouls, bool isFree, bool ruledMiss, bool leavesSnookered)
    {
        // The value of the ball on or of the ball concerned, whichever is higher, and four at the least (rule 11). A free ball has the
        // value of the ball on.
        var concerned = facts.Potted.Concat(facts.Gone).Where(b => b != Ball.White && !Counts(b, facts, isFree)).ToList();
        if (facts.First is { } first && !Counts(first, facts, isFree))
            concerned.Add(first);
        if (facts.WithFirst is { } with && !Counts(with, facts, isFree))
            concerned.Add(with);
        if (facts.Other is { } other)
            concerned.Add(other);
        var penalty = Math.Max(
            Values.LeastPenalty,
            Math.Max(ValueOn(facts.Nominated), concerned.Select(Values.Of).DefaultIfEmpty(0).Max())
        );

        // Reds stay down, whatever foul took them; colours come back, but not the due colour of a frame that ends with it.
        var reds = Reds - facts.Potted.Concat(facts.Gone).Count(b => b.IsRed);
        var spotted = facts.Potted.Concat(facts.Gone).Where(b => b.IsColour && Colours.Contains(b)).ToList();
        var opponent = 1 - Turn;
        var scores = opponent == 0 ? (Scores.First + penalty, Scores.Second) : (Scores.First, Scores.Second + penalty);
        var next = this with
        {
            Reds = reds,
            Scores = scores,
            Turn = opponent,
            Break = 0,
            On = NextOnAfterMiss(reds),
            InHand = facts.Potted.Contains(Ball.White) || facts.Gone.Contains(Ball.White),
            FreeBall = leavesSnookered,
            Fouled = true,
            Misses = ruledMiss ? Misses + 1 : 0,
        };
        // Only the black left: the first foul ends the frame (rule 4), unless it makes the scores level.
        if (Reds == 0 && Colours.Count == 1 && !Repeats)
            next = next.EndOrRespot();
        // A third miss called in a row from where a ball on could be seen full loses the frame (rule 14).
        else if (ruledMiss && next.Misses >= LongestMisses)
            next = next with { Winner = opponent };
        return new(0, penalty, fouls, next.IsOver ? [] : spotted, next);
    }

    private Ruling Fair(StrokeFacts facts, bool isFree)
    {
        var potted = facts.Potted;
        if (potted.Count == 0)
            return new(
                0,
                0,
                [],
                [],
                this with
                {
                    Turn = 1 - Turn,
                    Break = 0,
                    On = NextOnAfterMiss(Reds),
                    FreeBall = false,
                    InHand = false,
                    Fouled = false,
                    Misses = 0,
                }
            );

        // A free ball that goes in scores as the ball on; with the ball on itself, both score (rule 12).
        var points = potted.Sum(b => isFree && b == facts.Nominated ? ValueOn(null) : Values.Of(b));
        var reds = Reds - potted.Count(b => b.IsRed);
        var due = On.AsColour();
        // Colours come back while reds remain, or with the last red's colour; the free ball always does; the due colour, once the reds are
        // gone, stays down.
        var stays = due is { } d && !Repeats && potted.Contains(d) ? d : (Ball?)null;
        List<Ball> spotted = [.. potted.Where(b => b.IsColour && b != stays)];
        List<Ball> colours = [.. Colours.Where(c => c != stays)];
        var next = this with
        {
            Reds = reds,
            Colours = colours,
            Break = Break + points,
            Scores = Turn == 0 ? (Scores.First + points, Scores.Second) : (Scores.First, Scores.Second + points),
            On =
                Repeats ? On
                : On == BallOn.Red ? BallOn.Colour
                : reds > 0 ? BallOn.Red
                : colours.Count > 0 ? BallsOn.Only(colours[0])
                : On,
            FreeBall = false,
            InHand = false,
            Fouled = false,
            Misses = 0,
        };
        if (colours.Count == 0)
            next = next.EndOrRespot();
        return new(points, 0, [], spotted, next);
    }

    /// <summary>
    /// What is on for the next striker when nothing was fairly potted: a red while there is one, else the colour that is due.
    /// </summary>
    private BallOn NextOnAfterMiss(int reds) =>
        Repeats ? On
        : reds > 0 ? BallOn.Red
        : BallsOn.Only(Colours[0]);

    /// <summary>
    /// The end, or with level scores the black on its spot again, the white in hand, and the choice of first stroke by lot (rule 4).
    /// </summary>
    private Frame EndOrRespot() =>
        Scores.First != Scores.Second
            ? this with
            {
                Winner = Scores.First > Scores.Second ? 0 : 1,
                Colours = [],
            }
            : this with
            {
                Reds = 0,
                Colours = [Ball.Black],
                On = BallOn.Black,
                InHand = true,
                FreeBall = false,
                Fouled = false,
                Break = 0,
                Misses = 0,
            };

    /// <summary>
    /// The striker gives the frame up (Section 4, conduct): only when nothing but penalties could win it, which is not judged here.
    /// </summary>
    public Frame Concede() => this with { Winner = 1 - Turn };

    /// <summary>
    /// After a foul the striker asks the offender to play again from where the balls stopped (rule 13); or, after a miss, from where they
    /// were (rule 14).
    /// </summary>
    /// <exception cref="InvalidOperationException">The last stroke was no foul.</exception>
    public Frame PlayAgain() =>
        Fouled && !IsOver
            ? this with
            {
                Turn = 1 - Turn,
                FreeBall = false,
                Fouled = false,
            }
            : throw new InvalidOperationException("Only after a foul.");

    /// <summary>
    /// Whether a miss may be called at all: not once either player needs penalties, nor when the scores stand so that a foul makes it so
    /// (rule 14).
    /// </summary>
    public bool MissMayBeCalled => Math.Abs(Lead) < PointsLeft && SnookersRequired == 0;
}
