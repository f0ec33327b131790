using DeepBaize.Core.Scoring;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using Microsoft.EntityFrameworkCore;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Data.Demo;

/// <summary>What a new database starts with: an invented club's table and the positions its players talk about.</summary>
public static class DemoPositions
{
    public const string UserName = "Tilda Brackwater, Copperbeck Snooker Club";

    public static IReadOnlyList<(string Name, string About, PositionContent Content)> All { get; } =
    [
        (
            "Opening break",
            "Tilda's break-off at Copperbeck: thin off the end red, off three cushions, back between baulk colours and cushion.",
            Content(
                [At("white", 0.71, 0.739), .. Rack.Opening().Skip(1)],
                new()
                {
                    Aim = 1.427,
                    Side = -1,
                    Height = 0.2,
                    Pace = 5,
                }
            )
        ),
        (
            "High on the black, full pack",
            "Black to the yellow's side. Follow hard and the white runs past the pack; follow softer and it bends into it.",
            Content(
                [At("white", 3.03, 1.12), .. Rack.Colours(), .. Rack.Pack().Take(14)],
                new()
                {
                    Height = 0.8,
                    Pace = 4.2,
                    Pot = Pot("black", "yellow-top"),
                },
                new()
                {
                    On = "colour",
                    First = 1,
                    Break = 1,
                }
            )
        ),
        (
            "Mid-break, open reds",
            "Six reds in the open and every colour on its spot: which red leaves the black, and which the blue?",
            Content(
                [
                    At("white", 2.63, 0.62),
                    .. Rack.Colours(),
                    At("red-1", 2.98, 0.47),
                    At("red-2", 3.05, 1.25),
                    At("red-3", 2.55, 1.20),
                    At("red-4", 2.91, 0.88),
                    At("red-5", 3.36, 0.66),
                    At("red-6", 2.2, 1.35),
                ],
                new()
                {
                    Height = -0.3,
                    Pace = 3.8,
                    Pot = Pot("red-1", "yellow-top"),
                },
                // Four reds and four blacks into it.
                new()
                {
                    First = 45,
                    Second = 27,
                    Break = 32,
                }
            )
        ),
        (
            "Last red to the colours",
            "The last red decides the colours: pot it and come for a colour that leads to the yellow.",
            Content(
                [At("white", 2.35, 1.22), .. Rack.Colours(), At("red-1", 2.92, 1.33)],
                new()
                {
                    Height = -0.6,
                    Pace = 3.8,
                    Pot = Pot("red-1", "green-top"),
                }
            )
        ),
        (
            "Colours on their spots",
            "Yellow to start. Leave the white on the baulk side for the green, and do not run past the brown's line later.",
            Content(
                [At("white", 1.02, 0.74), .. Rack.Colours()],
                new()
                {
                    Height = -0.4,
                    Pace = 3,
                    Pot = Pot("yellow", "yellow"),
                }
            )
        ),
        (
            "A thin cut on the blue",
            "Finer than quarter ball. The white keeps nearly all its pace: decide where it goes before you play.",
            Content(
                [
                    At("white", 0.88, 0.41),
                    At("blue", Spot(Ball.Blue).X, Spot(Ball.Blue).Y),
                    At("pink", Spot(Ball.Pink).X, Spot(Ball.Pink).Y),
                    At("black", Spot(Ball.Black).X, Spot(Ball.Black).Y),
                ],
                new()
                {
                    Height = 0.3,
                    Pace = 3.8,
                    Pot = Pot("blue", "green-middle"),
                }
            )
        ),
        (
            "Snookered behind the brown",
            "The only red is hidden. Off the top cushion, or off the side? Find the line, then the pace.",
            Content(
                [
                    At("white", 0.55, 0.889),
                    At("yellow", 0.737, 0.597),
                    At("green", 0.737, 1.181),
                    At("brown", 0.737, 0.889),
                    At("blue", Spot(Ball.Blue).X, Spot(Ball.Blue).Y),
                    At("pink", Spot(Ball.Pink).X, Spot(Ball.Pink).Y),
                    At("black", Spot(Ball.Black).X, Spot(Ball.Black).Y),
                    At("red-1", 2.95, 0.93),
                ],
                new() { Aim = 37, Pace = 4.2 }
            )
        ),
        (
            "Re-spotted black",
            "Sudden death at Copperbeck: white from the D, black on its spot. Leave nothing.",
            Content([At("white", 0.70, 1.00), At("black", Spot(Ball.Black).X, Spot(Ball.Black).Y)], new() { Aim = -3.5, Pace = 4.7 })
        ),
        (
            "Stun across for the pink",
            "Half-ball on the red. Change only the height, a quarter of a tip at a time, and watch the finish move by feet.",
            Content(
                [
                    At("white", 2.72, 1.05),
                    At("red-1", 2.95, 0.50),
                    At("pink", 2.40, 1.30),
                    At("black", Spot(Ball.Black).X, Spot(Ball.Black).Y),
                ],
                new()
                {
                    Height = -0.5,
                    Pace = 3.4,
                    Pot = Pot("red-1", "yellow-top"),
                }
            )
        ),
        (
            "The line-up",
            "All the reds in line between the colours. Clear them, any colour with each: the nearest red is seldom the best.",
            Content(
                [.. Rack.LineUp()],
                new()
                {
                    Height = 0.3,
                    Pace = 2.7,
                    Pot = Pot("red-4", "green-middle"),
                }
            )
        ),
        (
            "Black off its spot",
            "Again and again, towards 200 points: the black comes back each time, so keep the angle and stay off the cushion.",
            Content(
                [At("white", 2.95, 0.65), At("black", Spot(Ball.Black).X, Spot(Ball.Black).Y)],
                new()
                {
                    Height = 0.2,
                    Pace = 2.7,
                    Pot = Pot("black", "green-top"),
                },
                new() { On = "black", Repeats = true }
            )
        ),
        (
            "Frozen to the side cushion",
            "A red tight on the cushion: meet ball and cushion together, with a touch of running side.",
            Content(
                [At("white", 2.20, 0.42), At("red-1", 2.95, BallRadius), At("black", Spot(Ball.Black).X, Spot(Ball.Black).Y)],
                new()
                {
                    Aim = -29.965,
                    Side = 0.6,
                    Height = 0.3,
                    Pace = 3.4,
                    Pot = Pot("red-1", "yellow-top"),
                    Free = true,
                }
            )
        ),
    ];

    /// <summary>Shots that Tilda kept with the position of this name: tip, pace, and the line she took down.</summary>
    private const string WithShots = "Stun across for the pink";

    private static readonly (string Name, string Note, double Height, double Pace)[] Shots =
    [
        ("Stun off the side cushion", "Level cue, and let it go through the ball", -0.5, 3.4),
        ("Screw back for the pink", "Lower bridge hand, no more pace than this", -0.95, 3.5),
    ];

    /// <summary>Creates the local user with the demo positions, if the database has no such user yet.</summary>
    public static async Task SeedAsync(DeepBaizeContext db, DateTimeOffset now, CancellationToken cancel = default)
    {
        if (await db.Users.AnyAsync(u => u.Id == User.LocalId, cancel))
            return;
        var user = new User
        {
            Id = User.LocalId,
            Name = UserName,
            CreatedAt = now,
        };
        db.Users.Add(user);
        var (tilda, orrin, table, cue) = DemoClub.Add(db, now);
        DemoPractice.Add(db, now, (tilda, orrin, table, cue));
        for (var i = 0; i < All.Count; i++)
        {
            // A second apart, so that they list in this order, the latest first.
            var time = now.AddSeconds(-i);
            var position = new Position
            {
                OwnerId = User.LocalId,
                Name = All[i].Name,
                About = All[i].About,
                Content = All[i].Content,
                CreatedAt = time,
                UpdatedAt = time,
                PlayerId = tilda,
                TableId = table,
                CueId = cue,
            };
            db.Positions.Add(position);
            if (position.Name != WithShots)
                continue;
            foreach (var (shot, k) in Shots.Select((shot, k) => (shot, k)))
                db.Shots.Add(
                    new()
                    {
                        OwnerId = User.LocalId,
                        PositionId = position.Id,
                        Name = shot.Name,
                        Note = shot.Note,
                        CreatedAt = time.AddSeconds(k),
                        Content = position.Content with
                        {
                            Stroke = position.Content.Stroke with { Height = shot.Height, Pace = shot.Pace },
                        },
                    }
                );
        }
        db.Frames.Add(
            new()
            {
                OwnerId = User.LocalId,
                Title = "Copperbeck ladder, frame 3",
                First = "Tilda",
                Second = "Orrin",
                Shots = [.. LadderFrame()],
                PlayerId = tilda,
                TableId = table,
                CueId = cue,
                CreatedAt = now,
                UpdatedAt = now,
            }
        );
        await db.SaveChangesAsync(cancel);
        // They refer to one another: only when all are there.
        (user.PlayerId, user.TableId, user.CueId) = (tilda, table, cue);
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>A frame under way, as Tilda wrote it down: two breaks, three safeties, a foul.</summary>
    private static IEnumerable<RecordedShot> LadderFrame()
    {
        static RecordedShot Potted(string ball, params StrokeTag[] tags) =>
            new()
            {
                Kind = ShotKind.Pot,
                Potted = [ball],
                Tags = tags,
            };
        static RecordedShot Missed(EndReason why, params StrokeTag[] tags) =>
            new()
            {
                Kind = ShotKind.Miss,
                Why = why,
                Tags = tags,
            };
        RecordedShot safety = new() { Kind = ShotKind.Safety };
        return
        [
            safety,
            safety,
            Missed(EndReason.Thick),
            Potted("red", StrokeTag.Follow),
            Potted("blue", StrokeTag.Stun),
            Potted("red", StrokeTag.Screw),
            Potted("pink", StrokeTag.Follow, StrokeTag.Cannon),
            Missed(EndReason.OutOfPosition, StrokeTag.Screw),
            Potted("red", StrokeTag.Stun),
            Potted("black", StrokeTag.Screw),
            Potted("red", StrokeTag.Follow),
            Potted("black", StrokeTag.Follow, StrokeTag.Side),
            Potted("red", StrokeTag.Screw),
            Potted("black", StrokeTag.Stun),
            Potted("red", StrokeTag.Rest),
            Missed(EndReason.TooHard, StrokeTag.Rest),
            safety,
            new() { Kind = ShotKind.Foul, Penalty = 5 },
            Potted("red", StrokeTag.Follow),
            Potted("yellow", StrokeTag.Stun),
            Missed(EndReason.Thin, StrokeTag.Side),
        ];
    }

    private static PositionContent Content(IReadOnlyList<PlacedBall> balls, StrokeEntry stroke, FrameEntry? frame = null) =>
        new()
        {
            Balls = [.. balls.Select(BallEntry.Of)],
            Stroke = stroke,
            Frame = frame,
        };

    private static PlacedBall At(string id, double x, double y) =>
        Ball.TryParse(id, out var ball) ? new(ball, x, y) : throw new ArgumentException($"No ball {id}.", nameof(id));

    private static PotEntry Pot(string ball, string pocket) => new() { Ball = ball, Pocket = pocket };
}
