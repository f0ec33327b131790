using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Tests.Rules;

/// <summary>
/// The rules, a row a rule: what happened, by the Official Rules of Snooker, Section 3 (numbers and wording from memory), and how it is
/// ruled.
/// The first player is at the table unless a row says otherwise.
/// </summary>
public class RefereeTests
{
    /// <summary>A row: what happens in which frame, and what must hold of the ruling.</summary>
    /// <param name="Rule">By number.</param>
    public sealed record Row(string Rule, string What, Frame Frame, StrokeFacts Facts, Expected Expected)
    {
        public override string ToString() => $"{Rule} {What}";
    }

    /// <summary>What must hold; null is not asked.</summary>
    public sealed record Expected
    {
        public int Points { get; init; }
        public int Penalty { get; init; }
        public BallOn? On { get; init; }
        public int? Turn { get; init; }
        public int? Reds { get; init; }
        public int? Winner { get; init; }
        public Ball[]? Spotted { get; init; }
        public FoulReason[]? Fouls { get; init; }
        public bool? FreeBall { get; init; }
        public bool? InHand { get; init; }
        public bool? IsMiss { get; init; }
        public bool? AwaitsLot { get; init; }
    }

    private static readonly Ball Red = Ball.Red(1),
        OtherRed = Ball.Red(2);

    private static Frame With(
        int reds,
        BallOn on,
        int coloursGone = 0,
        int first = 0,
        int second = 0,
        bool freeBall = false,
        int made = 0
    ) =>
        Frame.Create(
            reds,
            [.. Ball.Colours.Skip(coloursGone)],
            new()
            {
                On = on,
                First = first,
                Second = second,
                FreeBall = freeBall,
                Break = made,
            }
        );

    private static StrokeFacts Pot(params Ball[] balls) => new(balls[0], balls, balls[0].IsColour ? balls[0] : null);

    private static StrokeFacts Hits(Ball? first, Ball? named = null) => new(first, [], named);

    private static readonly Frame Reds = With(5, BallOn.Red),
        AnyColour = With(5, BallOn.Colour),
        FreeBallOnReds = With(5, BallOn.Red, freeBall: true),
        YellowOn = With(0, BallOn.Yellow);

    private static Expected Foul(int penalty, params FoulReason[] why) =>
        new()
        {
            Penalty = penalty,
            Turn = 1,
            Fouls = why.Length == 0 ? null : why,
        };

    private static IEnumerable<Row> Table() =>
        [
            // ---- 3.3 Mode of play
            new(
                "3.3",
                "a red scores one, and any colour is on",
                Reds,
                Pot(Red),
                new()
                {
                    Points = 1,
                    On = BallOn.Colour,
                    Turn = 0,
                    Reds = 4,
                }
            ),
            new(
                "3.3",
                "two reds in one stroke score one each",
                Reds,
                new(Red, [Red, OtherRed]),
                new()
                {
                    Points = 2,
                    Reds = 3,
                    On = BallOn.Colour,
                }
            ),
            new(
                "3.3",
                "a colour comes back while reds remain",
                AnyColour,
                Pot(Ball.Blue),
                new()
                {
                    Points = 5,
                    On = BallOn.Red,
                    Spotted = [Ball.Blue],
                }
            ),
            new(
                "3.3",
                "the colour with the last red comes back, and the yellow is on",
                With(0, BallOn.Colour),
                Pot(Ball.Black),
                new()
                {
                    Points = 7,
                    On = BallOn.Yellow,
                    Spotted = [Ball.Black],
                }
            ),
            new(
                "3.3",
                "the due colour stays down",
                YellowOn,
                Pot(Ball.Yellow),
                new()
                {
                    Points = 2,
                    On = BallOn.Green,
                    Spotted = [],
                }
            ),
            new(
                "3.3",
                "a colour missed after a red: reds are on",
                AnyColour,
                Hits(Ball.Blue, Ball.Blue),
                new() { On = BallOn.Red, Turn = 1 }
            ),
            new(
                "3.3",
                "the last red's colour missed: the yellow is on",
                With(0, BallOn.Colour),
                Hits(Ball.Pink),
                new() { On = BallOn.Yellow, Turn = 1 }
            ),
            // ---- 3.4 End of frame
            new("3.4", "the black ends it", With(0, BallOn.Black, 5, 50, 52), Pot(Ball.Black), new() { Points = 7, Winner = 0 }),
            new(
                "3.4",
                "a foul at the black alone ends it",
                With(0, BallOn.Black, 5, 52, 50),
                Hits(null),
                new() { Penalty = 7, Winner = 1 }
            ),
            new(
                "3.4",
                "the black brings the scores level: it is spotted, the white in hand, and lots are drawn",
                With(0, BallOn.Black, 5, 50, 57),
                Pot(Ball.Black),
                new()
                {
                    Points = 7,
                    Winner = -1,
                    AwaitsLot = true,
                    InHand = true,
                    On = BallOn.Black,
                }
            ),
            new(
                "3.4",
                "a foul at the black brings them level: the same",
                With(0, BallOn.Black, 5, 57, 50),
                new(Ball.Black, [Ball.White]),
                new()
                {
                    Penalty = 7,
                    Winner = -1,
                    AwaitsLot = true,
                    InHand = true,
                }
            ),
            new(
                "3.4",
                "behind by more than the black once the pink is gone: over",
                With(0, BallOn.Pink, 4, 20, 40),
                Pot(Ball.Pink),
                new() { Points = 6, Winner = 1 }
            ),
            new(
                "3.4",
                "ahead by more than the black in the midst of a break: the striker may play it out",
                With(0, BallOn.Pink, 4, 40, 20, made: 10),
                Pot(Ball.Pink),
                new()
                {
                    Points = 6,
                    Winner = -1,
                    On = BallOn.Black,
                }
            ),
            new(
                "3.4",
                "and when that break ends it is over",
                With(0, BallOn.Black, 5, 46, 20, made: 16),
                Hits(Ball.Black),
                new() { Winner = 0 }
            ),
            // ---- 3.6 Two balls at once
            new("3.6", "two reds at once are fair", Reds, Hits(Red) with { WithFirst = OtherRed }, new() { Turn = 1, On = BallOn.Red }),
            new("3.6", "a red and the black at once", Reds, Hits(Red) with { WithFirst = Ball.Black }, Foul(7, FoulReason.TwoAtOnce)),
            new(
                "3.6",
                "free ball and ball on together are fair",
                FreeBallOnReds,
                Hits(Ball.Pink, Ball.Pink) with
                {
                    WithFirst = Red,
                },
                new() { Turn = 1 }
            ),
            new(
                "3.6",
                "and in whatever order the two are written down",
                FreeBallOnReds,
                Hits(Red, Ball.Pink) with
                {
                    WithFirst = Ball.Pink,
                },
                new() { Turn = 1 }
            ),
            new(
                "3.6",
                "a free ball and another ball not on together",
                FreeBallOnReds,
                Hits(Ball.Pink, Ball.Pink) with
                {
                    WithFirst = Ball.Black,
                },
                Foul(7, FoulReason.TwoAtOnce)
            ),
            // ---- 3.8 Touching ball
            new("3.8", "away from a touching red: it counts as struck", Reds, Hits(null) with { Touching = [Red] }, new() { Turn = 1 }),
            new("3.8", "and then another ball may be hit", Reds, Hits(Ball.Black) with { Touching = [Red] }, new() { Turn = 1 }),
            new(
                "3.8",
                "away from a touching colour at another that is named: fair",
                AnyColour,
                Hits(Ball.Pink, Ball.Pink) with
                {
                    Touching = [Ball.Blue],
                },
                new() { Turn = 1 }
            ),
            new(
                "3.8",
                "away from a touching colour at another that is named, and missed: the touching one does not count",
                AnyColour,
                Hits(null, Ball.Pink) with
                {
                    Touching = [Ball.Blue],
                },
                Foul(6, FoulReason.MissedAll)
            ),
            new(
                "3.8",
                "the touching colour itself is named",
                AnyColour,
                Hits(null, Ball.Blue) with
                {
                    Touching = [Ball.Blue],
                },
                new() { Turn = 1 }
            ),
            new(
                "3.8",
                "nobody named one: the touching colour counts",
                AnyColour,
                Hits(null) with
                {
                    Touching = [Ball.Blue],
                },
                new() { Turn = 1 }
            ),
            new(
                "3.8",
                "a touching ball that is not on counts for nothing",
                Reds,
                Hits(null) with
                {
                    Touching = [Ball.Blue],
                },
                Foul(4, FoulReason.MissedAll)
            ),
            new("3.8", "the touching ball is pushed", Reds, Hits(Red) with { Touching = [Red], Other = Red }, Foul(4, FoulReason.Other)),
            // ---- 3.10, 3.11 Fouls and penalties
            new("3.11", "misses all balls", Reds, Hits(null), Foul(4, FoulReason.MissedAll)),
            new("3.11", "the yellow instead of a red", Reds, Hits(Ball.Yellow), Foul(4, FoulReason.WrongBallFirst)),
            new("3.11", "the blue instead of a red", Reds, Hits(Ball.Blue), Foul(5, FoulReason.WrongBallFirst)),
            new("3.11", "the black goes in off a red", Reds, new(Red, [Ball.Black]), Foul(7) with { Spotted = [Ball.Black] }),
            new("3.11", "in-off from a red", Reds, new(Red, [Ball.White]), Foul(4, FoulReason.InOff) with { InHand = true }),
            new("3.11", "a red instead of the pink named", AnyColour, Hits(Red, Ball.Pink), Foul(6, FoulReason.WrongBallFirst)),
            new("3.11", "the black instead of the yellow named", AnyColour, Hits(Ball.Black, Ball.Yellow), Foul(7)),
            new("3.11", "in-off from the blue named", AnyColour, new(Ball.Blue, [Ball.White], Ball.Blue), Foul(5)),
            new(
                "3.11",
                "a red goes in with the green named: it stays down",
                AnyColour,
                new(Ball.Green, [Red], Ball.Green),
                Foul(4) with
                {
                    Reds = 4,
                }
            ),
            new("3.11", "on the colours the ball on counts too", With(0, BallOn.Blue, 3), Hits(null), Foul(5)),
            new(
                "3.11",
                "a higher colour goes in with the yellow on",
                YellowOn,
                new(Ball.Yellow, [Ball.Black]),
                Foul(7) with
                {
                    On = BallOn.Yellow,
                }
            ),
            new("3.11", "no colour named: the first struck counts", AnyColour, Hits(Ball.Blue), new() { Turn = 1 }),
            new("3.11", "and for the penalty too", AnyColour, new(Ball.Yellow, [Ball.White]), Foul(4, FoulReason.InOff)),
            new("3.11", "no colour named, the blue struck, in-off", AnyColour, new(Ball.Blue, [Ball.White]), Foul(5, FoulReason.InOff)),
            new("3.11", "no colour named, and none struck: the highest", AnyColour, Hits(null), Foul(7, FoulReason.MissedAll)),
            new("3.11", "no colour named, and a red struck", AnyColour, Hits(Red), Foul(7, FoulReason.WrongBallFirst)),
            new(
                "3.11",
                "a ball forced off the table",
                Reds,
                Hits(Red) with
                {
                    OffTable = [Ball.Pink],
                },
                Foul(6, FoulReason.OffTable) with
                {
                    Spotted = [Ball.Pink],
                }
            ),
            new(
                "3.11",
                "a red forced off the table stays off",
                Reds,
                Hits(Red) with
                {
                    OffTable = [OtherRed],
                },
                Foul(4, FoulReason.OffTable) with
                {
                    Reds = 4,
                }
            ),
            new(
                "3.11",
                "the white forced off the table",
                Reds,
                Hits(Red) with
                {
                    OffTable = [Ball.White],
                },
                Foul(4, FoulReason.OffTable) with
                {
                    InHand = true,
                }
            ),
            new(
                "2, jump shot",
                "the white jumps over the pink on its way to a red",
                Reds,
                Hits(Red) with
                {
                    JumpedOver = Ball.Pink,
                },
                Foul(6, FoulReason.JumpShot)
            ),
            new(
                "3.11",
                "two fouls at once: the higher counts, once",
                Reds,
                new(Ball.Green, [Ball.White, Ball.Pink]),
                Foul(6, FoulReason.InOff, FoulReason.WrongBallFirst, FoulReason.WrongBallPotted)
            ),
            new(
                "3.11",
                "what only the referee sees, with the brown concerned",
                Reds,
                Hits(Red) with
                {
                    Other = Ball.Brown,
                },
                Foul(4, FoulReason.Other)
            ),
            // ---- 3.12 Free ball
            new(
                "3.12",
                "a free ball scores as a red and comes back",
                FreeBallOnReds,
                Pot(Ball.Black),
                new()
                {
                    Points = 1,
                    Reds = 5,
                    On = BallOn.Colour,
                    Spotted = [Ball.Black],
                }
            ),
            new(
                "3.12",
                "free ball and red potted: each scores",
                FreeBallOnReds,
                new(Ball.Black, [Ball.Black, Red], Ball.Black),
                new()
                {
                    Points = 2,
                    Reds = 4,
                    Spotted = [Ball.Black],
                }
            ),
            new(
                "3.12",
                "as the yellow",
                With(0, BallOn.Yellow, freeBall: true),
                Pot(Ball.Brown),
                new()
                {
                    Points = 2,
                    On = BallOn.Yellow,
                    Spotted = [Ball.Brown],
                }
            ),
            new(
                "3.12",
                "free ball and due colour potted: only the ball on scores",
                With(0, BallOn.Yellow, freeBall: true),
                new(Ball.Brown, [Ball.Brown, Ball.Yellow], Ball.Brown),
                new()
                {
                    Points = 2,
                    On = BallOn.Green,
                    Spotted = [Ball.Brown],
                }
            ),
            new(
                "3.12",
                "the free ball is not struck first",
                FreeBallOnReds,
                Hits(Ball.Pink, Ball.Blue),
                Foul(6, FoulReason.WrongBallFirst)
            ),
            new("3.12", "with a free ball a red may still be played", FreeBallOnReds, Pot(Red), new() { Points = 1, On = BallOn.Colour }),
            new(
                "3.12",
                "the free ball is left as a snooker",
                FreeBallOnReds,
                Hits(Ball.Blue, Ball.Blue) with
                {
                    SnookersBehindFreeBall = true,
                },
                Foul(4, FoulReason.SnookeredBehindFreeBall)
            ),
            new(
                "3.12",
                "but with only pink and black left that is fair",
                With(0, BallOn.Pink, 4, freeBall: true),
                Hits(Ball.Black, Ball.Black) with
                {
                    SnookersBehindFreeBall = true,
                },
                new() { Turn = 1 }
            ),
            new(
                "3.12",
                "a foul that leaves a snooker gives a free ball",
                Reds,
                Hits(null) with
                {
                    LeavesSnookered = true,
                },
                Foul(4) with
                {
                    FreeBall = true,
                }
            ),
            // ---- 3.14 Foul and a miss
            new("3.14", "a miss is called while both can win", Reds, Hits(null) with { MissCalled = true }, Foul(4) with { IsMiss = true }),
            new("3.14", "none is called", Reds, Hits(null), Foul(4) with { IsMiss = false }),
            new(
                "3.14",
                "the second failure from a ball in full sight is a miss, though nobody calls it",
                Reds with
                {
                    Misses = 1,
                },
                Hits(null) with
                {
                    FullBallOpen = true,
                },
                Foul(4) with
                {
                    IsMiss = true,
                    Winner = -1,
                }
            ),
            new(
                "3.14",
                "and whatever the score",
                With(0, BallOn.Pink, 4, first: 10, second: 40) with
                {
                    Misses = 1,
                },
                Hits(null) with
                {
                    FullBallOpen = true,
                    MissCalled = true,
                },
                Foul(6) with
                {
                    IsMiss = true,
                    Winner = -1,
                }
            ),
            new(
                "3.14",
                "after the warning the third gives the frame",
                Reds with
                {
                    Misses = 2,
                },
                Hits(null) with
                {
                    FullBallOpen = true,
                },
                Foul(4) with
                {
                    Winner = 1,
                }
            ),
            new(
                "3.14",
                "but not from where no ball is open full",
                Reds with
                {
                    Misses = 2,
                },
                Hits(null) with
                {
                    MissCalled = true,
                },
                Foul(4) with
                {
                    Winner = -1,
                }
            ),
        ];

    public static TheoryData<Row> Rows => [.. Table()];

    [Theory]
    [MemberData(nameof(Rows))]
    public void A_stroke_is_ruled_by_the_rule(Row row)
    {
        var (ruling, expected) = (Referee.Rule(row.Frame, row.Facts), row.Expected);
        var next = ruling.NextFrame;
        Assert.Equal((expected.Points, expected.Penalty), (ruling.Points, ruling.Penalty));
        Assert.Equal(expected.Penalty > 0, ruling.IsFoul);
        Assert.Equal(row.Frame.Scores.First + expected.Points, next.Scores.First);
        Assert.Equal(row.Frame.Scores.Second + expected.Penalty, next.Scores.Second);
        Same(expected.On, next.On);
        Same(expected.Turn, next.Turn);
        Same(expected.Reds, next.Reds);
        Same(expected.Winner, next.Winner);
        Same(expected.FreeBall, next.FreeBall);
        Same(expected.InHand, next.InHand);
        Same(expected.IsMiss, ruling.IsMiss);
        Same(expected.AwaitsLot, next.AwaitsLot);
        if (expected.Spotted is { } spotted)
            Assert.Equal(spotted, ruling.Spotted);
        if (expected.Fouls is { } fouls)
            Assert.Equal(fouls, ruling.Fouls);

        static void Same<T>(T? wanted, T actual)
            where T : struct
        {
            if (wanted is { } value)
                Assert.Equal(value, actual);
        }
    }

    public static TheoryData<Row> RefusedMisses =>
        [
            new Row("3.14", "needed penalties before the stroke", With(0, BallOn.Pink, 4, 10, 40), Hits(null), new()),
            new Row("3.14", "needs them because of the stroke", With(0, BallOn.Pink, 4, 20, 32), Hits(null), new()),
            new Row("3.14", "has all that is left to make up", With(0, BallOn.Pink, 4, 20, 33), Hits(null), new()),
            new Row("3.14", "struck the ball on first", Reds, new(Red, [Ball.White]), new()),
            new Row("3.14", "was fair", Reds, Hits(Red), new()),
        ];

    [Theory]
    [MemberData(nameof(RefusedMisses))]
    public void Rule_14_A_miss_that_may_not_be_called_is_refused(Row row)
    {
        var refused = Assert.Throws<InputException>(() => Referee.Rule(row.Frame, row.Facts with { MissCalled = true }));
        Assert.Equal("stroke.missCalled", Assert.Single(refused.Errors).Field);
    }
}
