using DeepBaize.Core.Table;

namespace DeepBaize.Core.Rules;

/// <summary>
/// Rules on strokes: facts in, ruling out. Official Rules of Snooker, Section 3 (from memory); docs/rules.md says by number what is judged.
/// </summary>
public static class Referee
{
    /// <summary>Rules on a stroke.</summary>
    /// <param name="path">Where the facts stand in the input, for the errors.</param>
    /// <exception cref="InputException">A miss was called that may not be.</exception>
    /// <exception cref="InvalidOperationException">The frame is over, or waits for a lot.</exception>
    public static Ruling Rule(Frame frame, StrokeFacts facts, string path = "stroke")
    {
        if (frame.IsOver)
            throw new InvalidOperationException("The frame is over.");
        if (frame.AwaitsLot)
            throw new InvalidOperationException("It is not yet said who plays first.");
        var stroke = Judged.Of(frame, facts);
        var fouls = FoulsOf(stroke);
        var ruling = fouls.Count > 0 ? Foul(stroke, fouls, path) : Fair(stroke);
        if (facts.MissCalled && fouls.Count == 0)
            throw NoMiss(path, "A miss is called, but the stroke was fair.");
        return ruling with { NextFrame = ruling.NextFrame.EndedIfOutOfReach() };
    }

    /// <summary>A stroke with what it was played for and what it struck, as the rules take it.</summary>
    /// <param name="Played">The colour, or the free ball, that it is taken to be played for; null for a red or the due colour.</param>
    /// <param name="IsFree">That ball is a free ball, beside the ball on itself.</param>
    /// <param name="Struck">What counts as struck first: one ball, two at once, or none.</param>
    private sealed record Judged(Frame Frame, StrokeFacts Facts, Ball? Played, bool IsFree, IReadOnlyList<Ball> Struck)
    {
        public static Judged Of(Frame frame, StrokeFacts facts)
        {
            var isFree = frame.FreeBall && facts.Nominated is { } free && !frame.IsOn(free);
            // Nobody named a colour: the first one struck counts, or else the one that the white lay against.
            var played =
                isFree ? facts.Nominated
                : frame.On != BallOn.Colour ? null
                : facts.Nominated ?? AsColour(facts.First) ?? FirstOf(facts.Touching, b => b.IsColour);
            return new(frame, facts, played, isFree, StruckIn(frame, facts, played, isFree));
        }

        private static IReadOnlyList<Ball> StruckIn(Frame frame, StrokeFacts facts, Ball? played, bool isFree)
        {
            // Played away from, a touching ball that is on counts as struck (rule 8); but not a colour when another is named.
            if (FirstOf(facts.Touching, b => isFree || frame.On == BallOn.Colour ? b == played : frame.IsOn(b)) is { } touched)
                return [touched];
            if (facts.First is not { } first)
                return [];
            return facts.WithFirst is { } with && with != first ? [first, with] : [first];
        }

        private static Ball? FirstOf(IReadOnlyList<Ball> balls, Func<Ball, bool> which)
        {
            foreach (var ball in balls)
                if (which(ball))
                    return ball;
            return null;
        }

        private static Ball? AsColour(Ball? ball) => ball is { IsColour: true } ? ball : null;

        /// <summary>Whether a ball counts as on in this stroke: the free ball does, beside the ball on itself.</summary>
        public bool Counts(Ball ball) => Frame.On == BallOn.Colour ? ball == Played : Frame.IsOn(ball) || (IsFree && ball == Played);

        /// <summary>The value of the ball on, of which penalties are made; a free ball takes that of the ball on.</summary>
        // A foul before any colour was named: the highest there is (rule 11).
        public int ValueOn => Frame.On == BallOn.Colour && Played is { } colour ? Values.Of(colour) : Frame.ValueOn;
    }

    private static List<FoulReason> FoulsOf(Judged s)
    {
        var (frame, facts) = (s.Frame, s.Facts);
        var fouls = new List<FoulReason>();
        if (facts.Potted.Contains(Ball.White))
            fouls.Add(FoulReason.InOff);
        if (s.Struck.Count == 0)
            fouls.Add(FoulReason.MissedAll);
        // Of a free ball and a ball on struck together it does not matter which is told first.
        else if (s.IsFree ? !s.Struck.Contains(s.Played!.Value) : !s.Counts(s.Struck[0]))
            fouls.Add(FoulReason.WrongBallFirst);
        if (facts.Potted.Any(b => b != Ball.White && !s.Counts(b)))
            fouls.Add(FoulReason.WrongBallPotted);
        if (s.Struck is [var one, var other] && !MayBeStruckTogether(s, one, other))
            fouls.Add(FoulReason.TwoAtOnce);
        if (facts.OffTable.Count > 0)
            fouls.Add(FoulReason.OffTable);
        if (facts.JumpedOver is not null)
            fouls.Add(FoulReason.JumpShot);
        // With only pink and black left it is no foul to leave a snooker behind the free ball (rule 12).
        if (s.IsFree && facts.SnookersBehindFreeBall && !(frame.Reds == 0 && frame.Colours.Count == 2))
            fouls.Add(FoulReason.SnookeredBehindFreeBall);
        if (facts.Other is not null)
            fouls.Add(FoulReason.Other);
        return fouls;
    }

    /// <summary>Two reds when reds are on, or the free ball and a ball on (rule 6); in an exercise two of its balls that are on.</summary>
    private static bool MayBeStruckTogether(Judged s, Ball one, Ball other) =>
        (one.IsRed && other.IsRed && s.Frame.On == BallOn.Red)
        || ((s.IsFree || s.Frame.Exercise is not null) && s.Counts(one) && s.Counts(other));

    private static Ruling Foul(Judged s, List<FoulReason> fouls, string path)
    {
        var (frame, facts) = (s.Frame, s.Facts);
        // The value of the ball on or of the ball concerned, whichever is higher, and four at the least; of two fouls the higher (rule 11).
        List<Ball> concerned = [.. facts.Gone.Concat(s.Struck).Where(b => b != Ball.White && !s.Counts(b))];
        if (facts.Other is { } other)
            concerned.Add(other);
        if (facts.JumpedOver is { } over)
            concerned.Add(over);
        var penalty = Math.Max(Values.LeastPenalty, Math.Max(s.ValueOn, concerned.Select(Values.Of).DefaultIfEmpty(0).Max()));

        // Reds stay down, whatever foul took them; colours come back.
        var reds = frame.Reds - facts.Gone.Count(b => b.IsRed);
        List<Ball> spotted = [.. facts.Gone.Where(b => b.IsColour && frame.Colours.Contains(b))];
        var opponent = 1 - frame.Turn;
        var scores =
            opponent == 0 ? (frame.Scores.First + penalty, frame.Scores.Second) : (frame.Scores.First, frame.Scores.Second + penalty);
        var next = frame with
        {
            Reds = reds,
            Scores = scores,
            Turn = opponent,
            Break = 0,
            On = frame.OnForNext(reds),
            InHand = facts.Gone.Contains(Ball.White),
            FreeBall = facts.LeavesSnookered && frame.Exercise is null,
            Misses = 0,
        };
        if (frame.Exercise is { } exercise)
        {
            exercise = exercise.Without([.. facts.Gone.Where(b => b.IsRed)]);
            return new(0, penalty, fouls, spotted, next with { Exercise = exercise, Winner = exercise.Balls.Count == 0 ? opponent : -1 });
        }
        var failed = fouls.Any(f => f is FoulReason.MissedAll or FoulReason.WrongBallFirst);
        // From the second failure on with a ball open full in the face it is a miss whatever the score (rule 14).
        var owed = failed && facts.FullBallOpen && frame.Misses > 0;
        if (facts.MissCalled && !owed)
            CheckMiss(frame, next, failed, path);
        var misses = frame.Misses + (facts.FullBallOpen ? 1 : 0);
        next = next with { Offence = new(facts.MissCalled || owed, frame, misses) };
        // Only the black left: the first foul ends the frame (rule 4), unless it makes the scores level.
        if (frame.IsBlackOnly)
            next = next.EndOrRespot();
        // After the warning the next failure gives the frame (rule 14).
        else if (owed && frame.IsWarned)
            next = next.Award(opponent);
        return new(
            0,
            penalty,
            fouls,
            next.IsOver ? []
                : next.AwaitsLot ? [Ball.Black]
                : spotted,
            next
        );
    }

    private static void CheckMiss(Frame before, Frame after, bool failed, string path)
    {
        if (!failed)
            throw NoMiss(path, "A miss is called, but a ball on was struck first.");
        if (!before.MissMayBeCalled)
            throw NoMiss(path, "No miss is called: a player needed penalty points before the stroke, or all that was left.");
        if (!after.MissMayBeCalled)
            throw NoMiss(path, "No miss is called: because of the stroke a player needs penalty points, or all that is left.");
    }

    private static InputException NoMiss(string path, string message) =>
        new(
            $"{path}.missCalled",
            message,
            "a miss only after failing to strike a ball on first, and while both players can win without penalties (rule 14)"
        );

    private static Ruling Fair(Judged s)
    {
        var (frame, potted) = (s.Frame, s.Facts.Potted);
        if (potted.Count == 0)
            return new(0, 0, [], [], frame.AfterMiss);

        var next = frame with { FreeBall = false, InHand = false, Offence = null, Misses = 0 };
        var points = potted.Sum(b => PointsOf(b, s));
        var reds = frame.Reds - potted.Count(b => b.IsRed);
        var exercise = frame.Exercise?.Without(potted);
        // Colours come back while reds remain, or with the last red's colour; the free ball always does; the due colour stays down.
        var stays = frame.On.AsColour() is { } due && !frame.Repeats && potted.Contains(due) ? due : (Ball?)null;
        bool StaysDown(Ball colour) => colour == stays || (exercise is not null && potted.Contains(colour));
        List<Ball> colours = [.. frame.Colours.Where(c => !StaysDown(c))];
        next = next with
        {
            Reds = reds,
            Colours = colours,
            Break = frame.Break + points,
            Scores =
                frame.Turn == 0 ? (frame.Scores.First + points, frame.Scores.Second) : (frame.Scores.First, frame.Scores.Second + points),
            Exercise = exercise,
            On =
                frame.Repeats || exercise is not null ? frame.On
                : frame.On == BallOn.Red ? BallOn.Colour
                : reds > 0 ? BallOn.Red
                : colours.Count > 0 ? BallsOn.Only(colours[0])
                : frame.On,
        };
        if (exercise is { Balls.Count: 0 })
            next = next with { Winner = frame.Turn };
        else if (exercise is null && colours.Count == 0)
            next = next.EndOrRespot();
        // With level scores the black comes back too (rule 4).
        return new(points, 0, [], next.AwaitsLot ? [Ball.Black] : [.. potted.Where(b => b.IsColour && !StaysDown(b))], next);
    }

    /// <summary>A free ball scores as the ball on; with the ball on itself only that one scores, but of reds each (rule 12).</summary>
    private static int PointsOf(Ball potted, Judged s) =>
        !s.IsFree || potted != s.Played ? Values.Of(potted)
        : s.Frame.On == BallOn.Red || s.Facts.Potted.Count == 1 ? s.ValueOn
        : 0;
}
