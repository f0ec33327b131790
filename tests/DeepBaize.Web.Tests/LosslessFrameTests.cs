using System.Text.Json;
using System.Text.Json.Nodes;
using DeepBaize.Core;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Positions;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Options;

namespace DeepBaize.Web.Tests;

/// <summary>
/// The frame loses nothing on its way to the page and back. Rules 4, 13 and 14 of the Official Rules, Section 3, from memory.
/// </summary>
[Collection("application")]
public class LosslessFrameTests(Application app)
{
    private static readonly TableShape Shape = new(Conditions.Default);

    private readonly JsonSerializerOptions _json = app.Services.GetRequiredService<IOptions<JsonOptions>>().Value.SerializerOptions;

    /// <summary>Number of random frames: a thousand in a long run.</summary>
    private static int Frames => Environment.GetEnvironmentVariable("DEEPBAIZE_LONG") == "1" ? 1000 : 40;

    /// <summary>White, blue and black, as coaches lay them: no frame, and welcome all the same.</summary>
    private static JsonObject BlueAndBlack(JsonNode? frame = null) =>
        new()
        {
            ["balls"] = JsonSerializer.SerializeToNode(
                new[]
                {
                    new
                    {
                        id = "white",
                        x = 1.5,
                        y = 0.6,
                    },
                    new
                    {
                        id = "blue",
                        x = Dimensions.Spot(Ball.Blue).X,
                        y = Dimensions.Spot(Ball.Blue).Y,
                    },
                    new
                    {
                        id = "black",
                        x = Dimensions.Spot(Ball.Black).X,
                        y = Dimensions.Spot(Ball.Black).Y,
                    },
                }
            ),
            ["stroke"] = new JsonObject
            {
                ["pace"] = 3.5,
                ["pot"] = new JsonObject { ["ball"] = "blue", ["pocket"] = "green-middle" },
            },
            ["frame"] = frame,
        };

    [Fact]
    public async Task Any_layout_is_an_exercise_that_is_played_on_ball_by_ball()
    {
        var (status, frame) = await app.Post("/api/frame", new JsonObject { ["content"] = BlueAndBlack() });
        Assert.Equal((200, "exercise", 12), (status, frame["on"]!.GetValue<string>(), frame["pointsLeft"]!.GetValue<int>()));
        var (_, played) = await app.Post("/api/play-on", new JsonObject { ["content"] = BlueAndBlack() });
        Assert.Equal(5, played["points"]!.GetValue<int>());
        Assert.Equal(["white", "black"], played["content"]!["balls"]!.AsArray().Select(b => b!["id"]!.GetValue<string>()));
        var exercise = played["content"]!["frame"]!["exercise"]!;
        Assert.Equal("any", exercise["order"]!.GetValue<string>());
        Assert.Equal(["black"], exercise["balls"]!.AsArray().Select(b => b!.GetValue<string>()));
        // What came back is taken as it is.
        var (_, next) = await app.Post("/api/frame", new JsonObject { ["content"] = played["content"]!.DeepClone() });
        Assert.Equal(["black"], next["onBalls"]!.AsArray().Select(b => b!.GetValue<string>()));
    }

    [Fact]
    public async Task An_order_is_kept_and_a_ball_that_is_not_there_is_named()
    {
        var inOrder = JsonNode.Parse("""{ "exercise": { "order": "inOrder", "balls": ["black", "blue"] } }""");
        var (_, frame) = await app.Post("/api/frame", new JsonObject { ["content"] = BlueAndBlack(inOrder) });
        Assert.Equal(["black"], frame["onBalls"]!.AsArray().Select(b => b!.GetValue<string>()));
        var missing = JsonNode.Parse("""{ "exercise": { "balls": ["blue", "pink"] } }""");
        var (status, problem) = await app.Post("/api/frame", new JsonObject { ["content"] = BlueAndBlack(missing) });
        Assert.Equal((400, "frame.exercise.balls[1]"), (status, problem.Fields()[0]));
        // With a foul to answer it is refused, and not taken for a frame.
        var fouled = JsonNode.Parse("""{ "exercise": {}, "offence": { "before": { "exercise": {} }, "balls": [] } }""")!;
        fouled["offence"]!["balls"] = BlueAndBlack()["balls"]!.DeepClone();
        (status, problem) = await app.Post("/api/frame", new JsonObject { ["content"] = BlueAndBlack(fouled) });
        Assert.Equal((400, "frame.offence"), (status, problem.Fields()[0]));
        // A frame that is said to be one is held to the rules.
        var (refused, fault) = await app.Post(
            "/api/frame",
            new JsonObject { ["content"] = BlueAndBlack(new JsonObject { ["on"] = "blue" }) }
        );
        Assert.Equal((400, "frame.colours"), (refused, fault.Fields()[0]));
    }

    [Fact]
    public async Task A_random_sequence_of_strokes_ends_in_the_same_state_in_the_core_and_through_the_API()
    {
        var (played, offences, replays, lots) = (0, 0, 0, 0);
        for (var seed = 0; seed < Frames; seed++)
        {
            var random = new Random(seed);
            var situation = Start(random);
            var content = ContentOf(situation);
            for (var stroke = 0; stroke < 12 && !situation.Frame.IsOver; stroke++)
            {
                var choice = situation.Frame.AwaitsLot ? null : (AfterFoulChoice?)random.Next(3);
                var struck = StrokeFrom(situation, random);
                var (expected, answered) = InCore(situation, struck, choice, random.Next(2));
                content["stroke"] = StrokeOf(struck);
                var (status, answer) = await app.Post("/api/play-on", Request(content, choice, expected));
                if (expected is null)
                {
                    Assert.Equal(400, status);
                    continue;
                }
                Assert.True(status == 200, $"{seed}.{stroke}: {answer}");
                situation = expected;
                content = answer["content"]!.AsObject();
                var wanted = ContentOf(situation);
                Assert.True(
                    JsonNode.DeepEquals(wanted["balls"], content["balls"]),
                    $"{seed}.{stroke}: {wanted["balls"]} {content["balls"]}"
                );
                Assert.True(
                    JsonNode.DeepEquals(wanted["frame"], content["frame"]),
                    $"{seed}.{stroke}: {wanted["frame"]} {content["frame"]}"
                );
                played++;
                offences += situation.Frame.Offence is null ? 0 : 1;
                replays += answered && choice == AfterFoulChoice.PutBack ? 1 : 0;
                lots += situation.Frame.AwaitsLot ? 1 : 0;
            }
        }
        // All that is to be kept has come up.
        Assert.True(played > 4 * Frames && offences > Frames / 2 && replays > 0 && lots > 0, $"{played} {offences} {replays} {lots}");
    }

    private enum AfterFoulChoice
    {
        Play,
        PlayAgain,
        PutBack,
    }

    /// <summary>A full table, an open one, the colours, or the black with the scores within seven.</summary>
    private static Situation Start(Random random)
    {
        List<PlacedBall> colours = [.. Rack.Colours()];
        var white = new Vec2(1 + 1.5 * random.NextDouble(), 0.2 + 0.3 * random.NextDouble());
        switch (random.Next(4))
        {
            case 0:
                return Situation.Create(Layout.OfRest([new(Ball.White, 0.6, 0.8), .. colours, .. Rack.Pack()]));
            case 1:
                PlacedBall[] reds = [new(Ball.Red(1), 2.9, 0.5), new(Ball.Red(2), 2.3, 1.3), new(Ball.Red(3), 1.2, 1.5)];
                return Situation.Create(Layout.OfRest([new(Ball.White, white), .. colours, .. reds]), new() { First = 30, Second = 25 });
            case 2:
                return Situation.Create(Layout.OfRest([new(Ball.White, white), .. colours]), new() { First = 40, Second = 45 });
            default:
                PlacedBall[] last = [new(Ball.White, 2.6, 0.5), new(Ball.Black, 3.3, 0.3)];
                return Situation.Create(Layout.OfRest(last), new() { First = 50, Second = 57 });
        }
    }

    /// <summary>At a ball on, or past it; softly or hard.</summary>
    private static Stroke StrokeFrom(Situation situation, Random random)
    {
        List<int> on = [.. situation.OnSlots()];
        var target = situation.Layout.Balls[on.Count == 0 ? 1 : on[random.Next(on.Count)]].At;
        var aim = (target - situation.Layout.White.At).Direction.Degrees + 6 * (random.NextDouble() - 0.5);
        return new(aim, 0, 0, 2 + 5 * random.NextDouble(), 4);
    }

    /// <summary>Returns the situation after the stroke by the core alone; null if it is refused, and whether a foul was answered.</summary>
    private static (Situation? Next, bool Answered) InCore(Situation from, Stroke stroke, AfterFoulChoice? choice, int first)
    {
        if (choice is not { } afterFoul)
            return (from.PlaysFirst(first), false);
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        stroke.Play(simulator, from.Layout, record);
        try
        {
            var played = from.Play(simulator, record, null, Shape, missCalled: afterFoul == AfterFoulChoice.PutBack);
            if (afterFoul == AfterFoulChoice.Play || played.Leaves.Frame.IsOver)
                return (played.Leaves, false);
            return !played.Ruling.IsFoul || played.Leaves.Frame.AwaitsLot
                ? (null, false)
                : (afterFoul == AfterFoulChoice.PutBack ? played.Leaves.Replay() : played.Leaves.PlayAgain(), true);
        }
        catch (InputException)
        {
            return (null, false);
        }
    }

    private JsonObject ContentOf(Situation situation) =>
        new()
        {
            ["balls"] = JsonSerializer.SerializeToNode(situation.Layout.Balls.Select(BallEntry.Of), _json),
            ["frame"] = JsonSerializer.SerializeToNode(FrameEntries.Of(situation), _json),
        };

    private static JsonObject StrokeOf(Stroke s) =>
        new()
        {
            ["aim"] = s.AimDegrees,
            ["side"] = s.SideTips,
            ["height"] = s.HeightTips,
            ["pace"] = s.Pace,
            ["elevation"] = s.ElevationDegrees,
        };

    private static JsonObject Request(JsonObject content, AfterFoulChoice? choice, Situation? expected) =>
        choice is { } c
            ? new() { ["content"] = content.DeepClone(), ["afterFoul"] = JsonNamingPolicy.CamelCase.ConvertName($"{c}") }
            : new() { ["content"] = content.DeepClone(), ["firstPlayer"] = expected!.Frame.Turn };

    private async Task<JsonNode> PlayOn(JsonObject content, JsonObject stroke, string afterFoul = "play")
    {
        content["stroke"] = stroke;
        var (status, answer) = await app.Post(
            "/api/play-on",
            new JsonObject { ["content"] = content.DeepClone(), ["afterFoul"] = afterFoul }
        );
        Assert.True(status == 200, $"{answer}");
        return answer;
    }

    /// <summary>Rule 14: with a full ball open, the third failure in a row from one place gives the frame.</summary>
    [Fact]
    public async Task The_third_miss_in_a_row_loses_the_frame_at_the_table()
    {
        var content = ContentOf(
            Situation.Create(
                Layout.OfRest([new(Ball.White, 1.5, 0.5), .. Rack.Colours(), new(Ball.Red(1), 2.2, 0.5), new(Ball.Red(2), 2.9, 1.4)])
            )
        );
        var away = StrokeOf(new(180, 0, 0, 2, 4));
        // A foul that the frame holds can be answered later, without another stroke; and only as the rules have it.
        var foul = (await PlayOn(content, away.DeepClone().AsObject()))["content"]!;
        var (status, refused) = await app.Post("/api/play-on", new JsonObject { ["content"] = foul.DeepClone(), ["answer"] = "putBack" });
        Assert.Equal((400, "answer"), (status, refused.Fields()[0]));
        (status, var again2) = await app.Post("/api/play-on", new JsonObject { ["content"] = foul.DeepClone(), ["answer"] = "playAgain" });
        Assert.Equal((200, 0), (status, again2["frame"]!["turn"]!.GetValue<int>()));
        for (var miss = 1; miss <= 2; miss++)
        {
            var again = await PlayOn(content, away.DeepClone().AsObject(), "putBack");
            Assert.Equal((miss, 0), (again["frame"]!["misses"]!.GetValue<int>(), again["frame"]!["turn"]!.GetValue<int>()));
            content = again["content"]!.AsObject();
        }
        var last = await PlayOn(content, away, "putBack");
        Assert.Equal((true, 1), (last["frame"]!["isOver"]!.GetValue<bool>(), last["frame"]!["winner"]!.GetValue<int>()));
    }

    /// <summary>
    /// Rule 4: with level scores the black is spotted again, the white is in hand, and it is drawn by lot who plays first.
    /// </summary>
    [Theory]
    [InlineData(50, 57, true)]
    [InlineData(57, 50, false)]
    public async Task A_black_potted_or_a_foul_that_levels_spots_the_black_again(int first, int second, bool pots)
    {
        // Screwed straight into the top pocket, or away from the black altogether: seven away.
        var white = new Vec2(3.1, 1.309);
        var black = new PlacedBall(Ball.Black, 3.4, 1.609);
        var aim = (black.At - white).Direction.Degrees;
        var content = ContentOf(Situation.Create(Layout.OfRest([new(Ball.White, white), black]), new() { First = first, Second = second }));
        var answer = await PlayOn(content, StrokeOf(new(pots ? aim : aim + 180, 0, pots ? -0.9 : 0, pots ? 4 : 2, 4)));
        var frame = answer["frame"]!;
        Assert.Equal((true, true), (frame["isRespotted"]!.GetValue<bool>(), frame["awaitsLot"]!.GetValue<bool>()));
        Assert.Equal(frame["first"]!.GetValue<int>(), frame["second"]!.GetValue<int>());
        var balls = answer["content"]!["balls"]!.AsArray();
        Assert.Equal(["black", "white"], balls.Select(b => b!["id"]!.GetValue<string>()).Order());
        Assert.Equal(3.245, balls.First(b => b!["id"]!.GetValue<string>() == "black")!["x"]!.GetValue<double>(), 1e-9);
        // Nothing is on until the lot is drawn; then the game goes on.
        var (status, _) = await app.Post("/api/play-on", new JsonObject { ["content"] = answer["content"]!.DeepClone() });
        Assert.Equal(400, status);
        (status, answer) = await app.Post(
            "/api/play-on",
            new JsonObject { ["content"] = answer["content"]!.DeepClone(), ["firstPlayer"] = 1 }
        );
        Assert.Equal((200, 1), (status, answer["frame"]!["turn"]!.GetValue<int>()));
        Assert.Equal(["black"], answer["frame"]!["onBalls"]!.AsArray().Select(b => b!.GetValue<string>()));
    }
}
