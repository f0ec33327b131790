using DeepBaize.Core.Table;

namespace DeepBaize.Core.Rules;

/// <summary>A foul that has just been played, while the next player chooses what follows (rules 13 and 14).</summary>
/// <param name="IsMiss">A miss was called: the balls may be put back.</param>
/// <param name="Before">The frame as it was before that stroke.</param>
/// <param name="Misses">Misses of this turn of unbroken replays with a full ball open, this one among them.</param>
public sealed record Offence(bool IsMiss, Frame Before, int Misses);

/// <summary>
/// A frame between two strokes: scores, who is at the table, what is on, what is left. Official Rules of Snooker, Section 3 (from memory);
/// a
/// rule is named beside what follows from it. Where balls lie is not in it: a position carries that. Strokes are ruled by <see
/// cref="Referee"/>.
/// </summary>
/// <param name="Reds">Still on the table.</param>
/// <param name="Colours">Still on the table, in the order of their values.</param>
/// <param name="On">What must be struck first.</param>
/// <param name="Scores">Of the two players.</param>
/// <param name="Turn">Who is at the table, 0 or 1.</param>
/// <param name="Break">Points of the present break.</param>
public sealed record Frame(int Reds, IReadOnlyList<Ball> Colours, BallOn On, (int First, int Second) Scores, int Turn, int Break)
{
    /// <summary>Bounds of a frame: number of reds and score of a player.</summary>
    public const int MostReds = 15,
        HighestScore = 999;

    /// <summary>A free ball and fifteen reds with blacks, then the colours.</summary>
    public const int HighestBreakThereIs = 155;

    /// <summary>So far an exercise that repeats itself is counted: common practice, no source.</summary>
    public const int ExerciseTarget = 200;

    /// <summary>After so many misses of one turn the next failure gives the frame: the player is warned of it (rule 14).</summary>
    public const int MissesBeforeTheLast = 2;

    /// <summary>Bound on the misses that are counted: the third in a row gives the frame (rule 14).</summary>
    public const int MostMisses = 99;

    /// <summary>Fifteen reds, all colours, the first player in the D.</summary>
    public static Frame Start { get; } = new(MostReds, Ball.Colours, BallOn.Red, (0, 0), 0, 0) { InHand = true };

    /// <summary>Whether the striker may nominate any ball as the ball on (rule 12).</summary>
    public bool FreeBall { get; init; }

    /// <summary>Whether the white is played from the D.</summary>
    public bool InHand { get; init; }

    /// <summary>The foul that the striker may answer, by asking the offender to play again; null if the last stroke was none.</summary>
    public Offence? Offence { get; init; }

    /// <summary>
    /// Misses, with a full ball open, of the player at the table in this turn of unbroken replays from one place (rule 14).
    /// </summary>
    public int Misses { get; init; }

    /// <summary>Once the frame is over; −1 before.</summary>
    public int Winner { get; init; } = -1;

    /// <summary>Scores were level after the black: it is on its spot again, and the next pot or foul ends the frame (rule 4).</summary>
    public bool IsRespotted { get; init; }

    /// <summary>The black is on its spot again, and it is not yet drawn by lot who plays first (rule 4).</summary>
    public bool AwaitsLot { get; init; }

    /// <summary>
    /// No frame but an exercise: a single colour that is on comes back to its spot and is on again, as in "the black off its spot".
    /// </summary>
    public bool Repeats { get; init; }

    /// <summary>An exercise on any layout in place of a frame; null in a frame.</summary>
    public Exercise? Exercise { get; init; }

    /// <summary>Whether the frame is over.</summary>
    public bool IsOver => Winner >= 0;

    /// <summary>Whether the next failure to hit a ball on that lies open gives the frame (rule 14).</summary>
    public bool IsWarned => Misses >= MissesBeforeTheLast;

    /// <summary>Whether nothing but the black is left, so that any foul ends the frame (rule 4).</summary>
    public bool IsBlackOnly => Reds == 0 && Colours.Count == 1 && !Repeats && Exercise is null;

    /// <summary>Whether one ball is left to pot, with which the table is cleared.</summary>
    public bool IsLastBall => IsBlackOnly || Exercise is { Balls.Count: 1 };

    /// <summary>Whether a ball is on by itself, without a free ball.</summary>
    public bool IsOn(Ball ball) => Exercise?.Includes(ball) ?? On.Includes(ball);

    /// <summary>Whether a ball may be played at next: one that is on, or with a free ball any.</summary>
    public bool MayPlay(Ball ball) => !AwaitsLot && (FreeBall || IsOn(ball));

    /// <summary>Whether a ball can be on after a pot of the ball on.</summary>
    public bool MayFollow(Ball ball) =>
        Exercise is { } exercise ? exercise.MayFollow(ball)
        : Repeats ? IsOn(ball)
        : On == BallOn.Red ? ball.IsColour
        : On == BallOn.Colour && Reds > 0 ? ball.IsRed
        : ball == Colours.FirstOrDefault(c => On == BallOn.Colour || Values.Of(c) > ValueOn);

    /// <summary>Value of the ball on, points: of any colour the highest.</summary>
    public int ValueOn =>
        On switch
        {
            BallOn.Red => Values.Red,
            BallOn.Colour => Values.Black,
            BallOn.Exercise => Exercise!.ValueOn,
            _ => Values.Of(On.AsColour()!.Value),
        };

    /// <summary>Returns the score of a player, 0 or 1.</summary>
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
            if (Exercise is { } exercise)
                return exercise.PointsLeft;
            return PointsOnTable + (FreeBall ? FreeBallPoints : 0);
        }
    }

    private int PointsOnTable => (On == BallOn.Colour ? Values.Black : 0) + Reds * (Values.Red + Values.Black) + Colours.Sum(Values.Of);

    private int FreeBallPoints => On == BallOn.Red ? Values.Red + Values.Black : Values.Of(On.AsColour()!.Value);

    /// <summary>The highest break still possible to the player at the table.</summary>
    public int HighestBreak => Break + PointsLeft;

    /// <summary>
    /// Points that the player at the table still has to make until the other can no longer draw level with what is then left: each point
    /// made
    /// both adds to the lead and is gone from the table. 0 if that is so already, or the frame is over; it may be more than is left.
    /// </summary>
    public int PointsToWin => IsOver || Exercise is not null || Lead > PointsLeft ? 0 : (PointsLeft - Lead) / 2 + 1;

    /// <summary>The least that a foul can cost now: four, or the ball on's value if that is higher (rule 11).</summary>
    public int LeastPenalty => Math.Max(Values.LeastPenalty, On.AsColour() is { } due ? Values.Of(due) : 0);

    /// <summary>
    /// How many fouls, of the least penalty there can be, the player at the table needs to draw level with all that is left; 0 if the frame
    /// can
    /// be had without. With the black alone it is 0: a foul ends the frame.
    /// </summary>
    public int SnookersRequired
    {
        get
        {
            var behind = -(Lead + PointsLeft);
            return IsOver || IsBlackOnly || Exercise is not null || behind <= 0 ? 0 : (behind + LeastPenalty - 1) / LeastPenalty;
        }
    }

    /// <summary>
    /// Whether a miss may be called as things stand: not once a player needs penalty points, nor when one has just as many to make up as
    /// are
    /// left (rule 14).
    /// </summary>
    public bool MissMayBeCalled
    {
        get
        {
            bool CanStillWin(int player) =>
                ScoreOf(1 - player) - ScoreOf(player) < PointsOnTable + (player == Turn && FreeBall ? FreeBallPoints : 0);
            return !IsOver && !Repeats && Exercise is null && CanStillWin(0) && CanStillWin(1);
        }
    }

    /// <summary>Whether the balls of a frame can be just these: with reds all colours, without them those of the highest values.</summary>
    /// <param name="colours">In the order of their values, each once.</param>
    public static bool MayHave(int reds, IReadOnlyList<Ball> colours) =>
        reds > 0
            ? colours.Count == Ball.Colours.Count
            : colours.Count > 0 && colours.SequenceEqual(Ball.Colours.Skip(Ball.Colours.Count - colours.Count));

    /// <summary>
    /// A frame under way, checked against itself. With the black alone and more than seven between the players it is over.
    /// </summary>
    /// <exception cref="InputException">A state that cannot be.</exception>
    public static Frame Create(int reds, IReadOnlyList<Ball> colours, FrameSetup setup, string path = "frame")
    {
        var checks = new Checks(path);
        List<Ball> order = [.. colours.OrderBy(Values.Of)];
        var first = reds > 0 || order.Count == 0 ? BallOn.Red : BallsOn.Only(order[0]);
        var on = setup.Exercise is null ? setup.On ?? first : BallOn.Exercise;
        checks.That(reds is >= 0 and <= MostReds, "reds", $"There are {reds} reds.", $"0 to {MostReds}");
        CheckEnd(checks, reds, order, setup);
        if (setup.Exercise is not null)
            CheckExercise(checks, reds, order, setup);
        else if (setup.Winner is null)
        {
            CheckColours(checks, reds, order, on, setup.Repeats);
            CheckOn(checks, reds, order, on, setup);
        }
        checks.That(setup.Turn is 0 or 1, "turn", $"There is no player {setup.Turn}.", "0 or 1");
        var highest = setup.Repeats ? HighestScore : HighestBreakThereIs;
        checks.That(
            setup.Break >= 0 && setup.Break <= highest,
            "break",
            $"A break of {setup.Break} is out of range.",
            $"0 to {HighestBreakThereIs}"
        );
        foreach (var (name, score) in new[] { ("first", setup.First), ("second", setup.Second) })
            checks.That(score is >= 0 and <= HighestScore, name, $"A score of {score} is out of range.", $"0 to {HighestScore}");
        if (setup.Turn is 0 or 1)
            checks.That(
                setup.Break <= (setup.Turn == 0 ? setup.First : setup.Second),
                "break",
                "The break is more than the player's score.",
                "up to the score of the player at the table"
            );
        checks.ThrowIfAny();
        var frame = new Frame(reds, order, on, (setup.First, setup.Second), setup.Turn, setup.Break)
        {
            FreeBall = setup.FreeBall,
            InHand = setup.InHand,
            Repeats = setup.Repeats,
            Exercise = setup.Exercise,
            Misses = setup.Misses,
            IsRespotted = setup.IsRespotted,
            AwaitsLot = setup.AwaitsLot,
            Winner = setup.Winner ?? -1,
            Offence = setup.Offence,
        };
        return frame.EndedIfOutOfReach();
    }

    private static void CheckEnd(Checks checks, int reds, List<Ball> order, FrameSetup setup)
    {
        checks.That(setup.Misses is >= 0 and <= MostMisses, "misses", $"{setup.Misses} misses are out of range.", $"0 to {MostMisses}");
        checks.That(setup.Winner is null or 0 or 1, "winner", $"There is no player {setup.Winner}.", "0, 1, or null before the end");
        checks.That(!setup.AwaitsLot || setup.IsRespotted, "awaitsLot", "Lots are drawn only for a re-spotted black.", "respotted with it");
        var isLevelBlack =
            reds == 0 && order is [var last] && last == Ball.Black && (setup.Winner is not null || setup.First == setup.Second);
        checks.That(
            !setup.IsRespotted || isLevelBlack,
            "respotted",
            "The black is spotted again only alone and with level scores.",
            "the black alone, and level scores"
        );
        if (setup.Offence is { } offence)
            checks.That(
                offence.Misses is >= 0 and <= MostMisses,
                "offence.misses",
                $"{offence.Misses} misses are out of range.",
                $"0 to {MostMisses}"
            );
    }

    /// <summary>An exercise takes any layout; what belongs to the rules of a frame has no place in it.</summary>
    private static void CheckExercise(Checks checks, int reds, List<Ball> colours, FrameSetup setup)
    {
        var balls = setup.Exercise!.Balls;
        const string range = "object balls that are on the table, each once";
        checks.That(balls.Count > 0 || setup.Winner is not null, "exercise.balls", "No ball is left to be potted.", range);
        checks.That(balls.Distinct().Count() == balls.Count, "exercise.balls", "A ball is named twice.", range);
        checks.That(
            balls.Count(b => b.IsRed) <= reds && balls.All(b => b.IsRed || colours.Contains(b)),
            "exercise.balls",
            "A ball of the exercise is not on the table.",
            range
        );
        checks.That(setup.On is null or BallOn.Exercise, "on", "In an exercise its own balls are on.", "null or exercise");
        checks.That(!setup.Repeats, "repeats", "A ball that comes back is an exercise of its own.", "false with exercise");
        checks.That(!setup.FreeBall, "freeBall", "There is no free ball in an exercise.", "false with exercise");
        checks.That(setup.Misses == 0, "misses", "No miss is called in an exercise.", "0 with exercise");
        checks.That(!setup.IsRespotted, "respotted", "No black is spotted again in an exercise.", "false with exercise");
        checks.That(setup.Offence is null, "offence", "There is no foul to answer in an exercise.", "null with exercise");
    }

    private static void CheckColours(Checks checks, int reds, List<Ball> order, BallOn on, bool repeats)
    {
        if (order.Distinct().Count() != order.Count || order.Any(c => !c.IsColour))
            checks.That(false, "colours", "A colour occurs twice or is unknown.", "yellow, green, brown, blue, pink, black, each once");
        else if ((reds > 0 || on is BallOn.Red or BallOn.Colour) && order.Count < Ball.Colours.Count)
            checks.That(false, "colours", "A colour is missing while reds remain, or before its turn.", "all six colours");
        else if (order.Count == 0)
            checks.That(false, "colours", "There is no ball left to pot.", "at least the black");
        else
            checks.That(
                repeats || order.SequenceEqual(Ball.Colours.Skip(Ball.Colours.Count - order.Count)),
                "colours",
                "The colours go in the order of their values.",
                "none missing that is worth more than one that is left"
            );
    }

    private static void CheckOn(Checks checks, int reds, List<Ball> order, BallOn on, FrameSetup setup)
    {
        var repeats = setup.Repeats;
        checks.That(on != BallOn.Exercise, "on", "The balls of an exercise are on only in an exercise.", "red, colour or a single colour");
        checks.That(
            on != BallOn.Red || reds != 0,
            "on",
            "A red is on, but there is none on the table.",
            "colour, or the colour of the least value"
        );
        checks.That(on < BallOn.Yellow || reds <= 0, "on", "A single colour is on only once the reds are gone.", "red or colour");
        if (on.AsColour() is { } due && reds == 0 && order.Count > 0)
            checks.That(
                repeats ? order.Contains(due) : due == order[0],
                "on",
                "The colours are on in the order of their values.",
                order[0].Id
            );
        checks.That(
            !repeats || on >= BallOn.Yellow,
            "repeats",
            "Only a single colour can be potted again and again.",
            "yellow, green, brown, blue, pink or black on"
        );
        // After a foul a red is on, or the colour that is due: never any colour (rule 12).
        checks.That(
            !setup.FreeBall || on != BallOn.Colour,
            "freeBall",
            "There is no free ball when any colour is on.",
            "red, or a single colour on"
        );
    }

    /// <summary>
    /// What is on for the next striker when nothing was fairly potted: a red while there is one, else the colour that is due.
    /// </summary>
    public BallOn OnForNext(int reds) =>
        Repeats || Exercise is not null ? On
        : reds > 0 ? BallOn.Red
        : BallsOn.Only(Colours[0]);

    /// <summary>
    /// With the black alone and more than seven between the players the frame is over (rule 4). Only a player who leads and is in the midst
    /// of
    /// a break may play the black out: it is for the striker to claim the frame.
    /// </summary>
    internal Frame EndedIfOutOfReach()
    {
        var isPlayedOut = Lead > 0 && Break > 0;
        return !IsOver && IsBlackOnly && Math.Abs(Lead) > Values.Black && !isPlayedOut
            ? this with
            {
                Winner = Scores.First > Scores.Second ? 0 : 1,
            }
            : this;
    }

    /// <summary>The frame after a fair stroke that pots nothing: the other player is at the table.</summary>
    public Frame AfterMiss =>
        (
            this with
            {
                Turn = 1 - Turn,
                Break = 0,
                On = OnForNext(Reds),
                FreeBall = false,
                InHand = false,
                Offence = null,
                Misses = 0,
            }
        ).EndedIfOutOfReach();

    /// <summary>
    /// The end; or with level scores the black on its spot again, the white in hand, and who plays first by lot (rule 4).
    /// </summary>
    internal Frame EndOrRespot()
    {
        var ended = this with { FreeBall = false, Offence = null, Misses = 0 };
        if (Scores.First != Scores.Second)
            return ended with { Winner = Scores.First > Scores.Second ? 0 : 1 };
        return ended with { Colours = [Ball.Black], On = BallOn.Black, InHand = true, Break = 0, IsRespotted = true, AwaitsLot = true };
    }

    /// <summary>It is drawn by lot who plays first at the black on its spot again (rule 4).</summary>
    /// <exception cref="InvalidOperationException">There is no lot to draw.</exception>
    public Frame PlaysFirst(int player) =>
        AwaitsLot ? this with { Turn = player, AwaitsLot = false } : throw new InvalidOperationException("Only for a re-spotted black.");

    /// <summary>The striker gives the frame up (rule 4; conduct, Section 4). Whether it was yet to be won is not judged here.</summary>
    public Frame Concede() => Award(1 - Turn);

    /// <summary>The referee gives the frame to a player: for conduct (Section 4).</summary>
    public Frame Award(int player) => this with { Winner = player, Offence = null };

    /// <summary>
    /// After a foul the striker asks the offender to play again, from where the balls stopped (rule 13): with the same ball on as for
    /// himself,
    /// and without a free ball.
    /// </summary>
    /// <exception cref="InvalidOperationException">The last stroke was no foul, or ended the frame.</exception>
    public Frame PlayAgain() =>
        Offence is not null && !IsOver
            ? this with
            {
                Turn = 1 - Turn,
                FreeBall = false,
                Offence = null,
            }
            : throw new InvalidOperationException("Only after a foul.");

    /// <summary>
    /// After a miss the striker asks the offender to play again from where the balls were (rule 14): they come back, the ball on is what it
    /// was, and only the scores have changed.
    /// </summary>
    /// <exception cref="InvalidOperationException">No miss was called, or the frame is over.</exception>
    public Frame Replay() =>
        Offence is { IsMiss: true } offence && !IsOver
            ? offence.Before with
            {
                Scores = Scores,
                Break = 0,
                Misses = offence.Misses,
            }
            : throw new InvalidOperationException("Only after a miss.");
}
