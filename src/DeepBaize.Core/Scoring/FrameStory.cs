using DeepBaize.Core.Rules;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Scoring;

/// <summary>A recorded shot with what it was played at and what it made.</summary>
public sealed record StoryShot(RecordedShot Shot, int Player, BallOn On, int Points, int Penalty, Frame After);

/// <summary>A turn at the table in which something was potted.</summary>
/// <param name="Balls">Balls potted, in order.</param>
/// <param name="End">The shot that ended it; null while it goes on, or if the frame ended with it.</param>
public sealed record StoryBreak(int Player, int Points, int Pots, IReadOnlyList<string> Balls, RecordedShot? End, BallOn? EndOn);

/// <summary>A frame told shot by shot: every shot ruled, the breaks, and both players' figures.</summary>
public sealed record FrameStory(
    IReadOnlyList<StoryShot> Shots,
    Frame Now,
    IReadOnlyList<StoryBreak> Breaks,
    IReadOnlyList<PlayerTally> Players
)
{
    /// <summary>Largest number of shots in a frame.</summary>
    public const int MostShots = 500;

    /// <exception cref="InputException">A shot that could not have been played so, with its place in the list.</exception>
    public static FrameStory Of(IReadOnlyList<RecordedShot> shots, string path = "shots")
    {
        var (story, fault) = UpTo(shots, path);
        return fault is null ? story : throw fault;
    }

    /// <summary>
    /// The story as far as it can be told: what was written down before a rule was put right is still to be read, up to the shot that could
    /// not
    /// have been.
    /// </summary>
    /// <returns>The story, and what is wrong with the shot after it; null if it is whole.</returns>
    public static (FrameStory Story, InputException? Fault) UpTo(IReadOnlyList<RecordedShot> shots, string path = "shots")
    {
        if (shots.Count > MostShots)
            return (Of([]), new(path, $"There are {shots.Count} shots.", $"at most {MostShots}"));
        var frame = Frame.Start;
        var told = new List<StoryShot>();
        InputException? fault = null;
        for (var i = 0; i < shots.Count && fault is null; i++)
        {
            try
            {
                var (before, ruling) = (frame, Ruled(frame, shots[i], $"{path}[{i}]"));
                frame = ruling.NextFrame;
                told.Add(new(shots[i], before.Turn, before.On, ruling.Points, ruling.Penalty, frame));
            }
            catch (InputException e)
            {
                fault = e;
            }
        }
        var breaks = BreaksOf(told);
        return (new(told, frame, breaks, [Tally(told, breaks, 0), Tally(told, breaks, 1)]), fault);
    }

    private static Ruling Ruled(Frame frame, RecordedShot shot, string path)
    {
        if (frame.IsOver)
            throw new InputException(path, "The frame was over before it.", "no shot after the end");
        if (frame.AwaitsLot != (shot.Kind == ShotKind.Lot) && shot.Kind is not (ShotKind.Concede or ShotKind.Award))
            throw frame.AwaitsLot
                ? new InputException(
                    $"{path}.kind",
                    "The black is on its spot again, and it is not said who plays first.",
                    "lot, with the player"
                )
                : new InputException($"{path}.kind", "There is no lot to draw.", "lot only after level scores at the end");
        switch (shot.Kind)
        {
            case ShotKind.Concede:
                return new(0, 0, [], [], frame.Concede());
            case ShotKind.Award:
                return new(0, 0, [], [], frame.Award(CheckedPlayer(shot, path)));
            case ShotKind.Lot:
                return new(0, 0, [], [], frame.PlaysFirst(CheckedPlayer(shot, path)));
            case ShotKind.Foul:
                return Foul(frame, shot, path);
            case ShotKind.Pot when shot.Potted.Count == 0:
                throw new InputException($"{path}.potted", "Nothing was potted.", Allowed(frame));
            case ShotKind.Pot:
                return Pot(frame, shot, path);
            default:
                return Referee.Rule(frame, new(First(frame), []), path);
        }
    }

    private static int CheckedPlayer(RecordedShot shot, string path) =>
        shot.Player is 0 or 1 ? shot.Player : throw new InputException($"{path}.player", $"There is no player {shot.Player}.", "0 or 1");

    private static Ruling Pot(Frame frame, RecordedShot shot, string path)
    {
        var balls = Balls(shot.Potted, frame, $"{path}.potted");
        var named = balls.Find(b => b.IsColour) is { IsColour: true } colour && frame.On.AsColour() != colour ? colour : (Ball?)null;
        var ruling = Referee.Rule(frame, new(named ?? balls[0], balls, named), path);
        if (!ruling.IsFoul)
            return ruling;
        var what = string.Join(" and ", shot.Potted);
        throw new InputException($"{path}.potted", $"With {frame.On.Name()} on, potting {what} is a foul.", Allowed(frame));
    }

    private static Ruling Foul(Frame frame, RecordedShot shot, string path)
    {
        var checks = new Checks(path);
        checks.That(
            shot.Penalty >= frame.LeastPenalty && shot.Penalty <= Values.Black,
            "penalty",
            $"A foul of {shot.Penalty} cannot be here.",
            $"{frame.LeastPenalty} to {Values.Black}"
        );
        checks.That(
            shot.RedsLost >= 0 && shot.RedsLost <= frame.Reds,
            "redsLost",
            $"{shot.RedsLost} reds cannot have gone.",
            $"0 to {frame.Reds}"
        );
        checks.That(!shot.Replaced || shot.MissCalled, "replaced", "The balls are put back only after a miss.", "missCalled with it");
        checks.That(
            !(shot.Replaced && shot.PlayAgain),
            "replaced",
            "The offender plays from the old places or from where the balls lie.",
            "replaced or playAgain, not both"
        );
        checks.ThrowIfAny();
        List<Ball> potted = [.. Enumerable.Range(1, shot.RedsLost).Select(Ball.Red)];
        if (shot.InOff)
            potted.Add(Ball.White);
        var facts = new StrokeFacts(shot.MissCalled ? null : First(frame), potted, frame.On == BallOn.Colour ? Ball.Yellow : null)
        {
            // The ball concerned makes the penalty; the white stands for a foul that concerns none. With any colour on, one of low value
            // was named.
            Other = shot.Penalty > Values.LeastPenalty ? Ball.Colours.First(c => Values.Of(c) == shot.Penalty) : Ball.White,
            LeavesSnookered = shot.FreeBall,
            FullBallOpen = shot.MissCalled && shot.FullBall,
            MissCalled = shot.MissCalled,
        };
        var ruling = Referee.Rule(frame, facts, path);
        var next = ruling.NextFrame;
        if (next.IsOver || next.AwaitsLot)
            return ruling;
        return ruling with
        {
            NextFrame =
                shot.Replaced ? next.Replay()
                : shot.PlayAgain ? next.PlayAgain()
                : next,
        };
    }

    /// <summary>A ball on, struck first as it should be.</summary>
    private static Ball First(Frame frame) =>
        frame.On switch
        {
            BallOn.Red => Ball.Red(1),
            BallOn.Colour => Ball.Yellow,
            _ => frame.On.AsColour()!.Value,
        };

    private static List<Ball> Balls(IReadOnlyList<string> names, Frame frame, string path)
    {
        var (balls, reds) = (new List<Ball>(), 0);
        foreach (var name in names)
        {
            if (name == "red" && ++reds <= frame.Reds)
                balls.Add(Ball.Red(reds));
            else if (
                name != "red"
                && Ball.TryParse(name, out var ball)
                && ball.IsColour
                && frame.Colours.Contains(ball)
                && !balls.Contains(ball)
            )
                balls.Add(ball);
            else
                throw new InputException(path, $"There is no such ball to pot as {(name.Length > 20 ? "that" : name)}.", Allowed(frame));
        }
        return balls;
    }

    private static string Allowed(Frame frame) =>
        frame switch
        {
            { FreeBall: true } => $"{frame.On.Name()}, or a free ball",
            { On: BallOn.Red } => frame.Reds > 1 ? "red, or several reds" : "red",
            { On: BallOn.Colour } => string.Join(", ", frame.Colours.Select(c => c.Id)),
            _ => frame.On.Name(),
        };

    // ---- Figures ---------------------------------------------------------------------------------------------------

    private static List<StoryBreak> BreaksOf(List<StoryShot> shots)
    {
        var breaks = new List<StoryBreak>();
        var (points, pots) = (0, 0);
        var balls = new List<string>();
        for (var i = 0; i < shots.Count; i++)
        {
            var shot = shots[i];
            if (shot.Points > 0)
            {
                (points, pots) = (points + shot.Points, pots + 1);
                balls.AddRange(shot.Shot.Potted);
            }
            var isLast = i == shots.Count - 1 || shot.After.IsOver;
            if (pots > 0 && (shot.Points == 0 || isLast))
            {
                var end = shot.Points == 0 ? shot : null;
                breaks.Add(new(shot.Player, points, pots, [.. balls], end?.Shot, end?.On));
                (points, pots) = (0, 0);
                balls.Clear();
            }
        }
        return breaks;
    }

    private static PlayerTally Tally(List<StoryShot> shots, List<StoryBreak> breaks, int player)
    {
        List<StoryShot> own = [.. shots.Where(s => s.Player == player)];
        int Count(ShotKind kind) => own.Count(s => s.Shot.Kind == kind);
        var tags = Enum.GetValues<StrokeTag>()
            .Select(tag => new TagTally(
                tag,
                own.Count(s => s.Shot.Tags.Contains(tag)),
                own.Count(s => s.Points > 0 && s.Shot.Tags.Contains(tag))
            ))
            .Where(t => t.Played > 0);
        // Misses without a break before them tell as much of where it goes wrong as those that end one.
        var ends = own.Where(s => s.Shot.Kind is ShotKind.Miss or ShotKind.Foul)
            .GroupBy(s => (s.On, s.Shot.Kind, s.Shot.Why))
            .Select(g => new EndTally(g.Key.On, g.Key.Kind, g.Key.Why, g.Count()))
            .OrderByDescending(e => e.Count)
            .ThenBy(e => e.On);
        return new(
            own.Sum(s => s.Points),
            Count(ShotKind.Pot),
            Count(ShotKind.Miss),
            Count(ShotKind.Safety),
            Count(ShotKind.Foul),
            own.Sum(s => s.Penalty),
            breaks.Where(b => b.Player == player).Select(b => b.Points).DefaultIfEmpty(0).Max(),
            [.. tags],
            [.. ends]
        );
    }
}
