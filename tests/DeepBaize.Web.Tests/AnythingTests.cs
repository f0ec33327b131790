using System.Text.Json.Nodes;
using DeepBaize.Core.Players;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Web.Tests;

/// <summary>
/// Whatever is on the table and whatever is asked of it, there is an answer or a refusal that names the field: never a failure of the
/// server (which a figure that is no number would be too).
/// </summary>
[Collection("application")]
public class AnythingTests(Application app)
{
    private static readonly string[] Pockets = ["yellow", "green", "yellow-middle", "green-middle", "yellow-top", "green-top"];

    [Theory]
    [InlineData("/api/shot", 60)]
    [InlineData("/api/read", 30)]
    [InlineData("/api/spread", 25)]
    [InlineData("/api/fan", 60)]
    [InlineData("/api/sides", 40)]
    [InlineData("/api/shot/ladder", 6)]
    [InlineData("/api/shot/paces", 6)]
    [InlineData("/api/shot/chart", 5)]
    [InlineData("/api/shot/windows", 8)]
    [InlineData("/api/leave", 20)]
    [InlineData("/api/position-at", 60)]
    [InlineData("/api/frame", 60)]
    [InlineData("/api/play-on", 40)]
    public async Task Any_table_gets_an_answer_or_is_refused_by_name(string path, int times)
    {
        var random = new Random(20261125);
        var answered = 0;
        for (var i = 0; i < times; i++)
        {
            var body = new JsonObject { ["content"] = AnyContent(random) };
            if (path is "/api/shot" or "/api/read" or "/api/spread" or "/api/sides" or "/api/leave" or "/api/position-at")
                body["player"] = new JsonObject
                {
                    ["skill"] = Any(random, "tour", "club", "learner", "own"),
                    ["hand"] = Any(random, "left", "right"),
                    ["own"] = AnySkill(random),
                };
            if (path == "/api/shot/ladder")
                body["knob"] = Any(random, "height", "pace", "side", "elevation", "aim");
            if (path == "/api/fan")
                body["kind"] = Any(random, "routes", "paces", "heights", "sides", "butts", "aims", "errors");
            if (path == "/api/position-at")
                (body["x"], body["y"], body["afterPot"]) = (random.NextDouble() * Length, random.NextDouble() * Width, random.Next(2) == 0);
            if (path == "/api/play-on" && random.Next(2) == 0)
                body["missed"] = Any(random, "thick", "thin");
            var asked = body.ToJsonString();
            var (status, answer) = await app.Post(path, body);
            Assert.True(status is 200 or 400, $"{status} for {asked}");
            if (status == 200)
                answered++;
            else
                Assert.True(answer.Fields().Any() || answer["detail"] is not null, asked);
        }
        Assert.True(answered >= times / 4, $"only {answered} of {times} were answered");
    }

    /// <summary>Every part within its range, often at an end of it: no error at all, or as much as may be.</summary>
    private static JsonObject AnySkill(Random random) =>
        new(
            Skill.Parts.Select(p =>
                KeyValuePair.Create<string, JsonNode?>(
                    p.Name,
                    random.Next(4) switch
                    {
                        0 => p.Least,
                        1 => p.Most,
                        _ => p.Least + (p.Most - p.Least) * random.NextDouble(),
                    }
                )
            )
        );

    private static string Any(Random random, params string[] of) => of[random.Next(of.Length)];

    /// <summary>
    /// Balls anywhere, many of them on a cushion or touching, at times without a white; any stroke, any pot; at times other conditions.
    /// </summary>
    private static JsonObject AnyContent(Random random)
    {
        var shape = new TableShape(Conditions.Default);
        var placed = new List<PlacedBall>();
        List<Ball> balls =
        [
            .. Rack.Colours().Select(b => b.Ball).Where(_ => random.NextDouble() < 0.85),
            .. Enumerable.Range(1, random.Next(1 + random.Next(16))).Select(Ball.Red),
        ];
        if (random.NextDouble() < 0.95)
            balls.Insert(0, Ball.White);
        foreach (var ball in balls)
        {
            var (x, y) = (random.NextDouble() * Length, random.NextDouble() * Width);
            if (random.NextDouble() < 0.2)
                y = random.Next(2) * Width;
            if (random.NextDouble() < 0.2 && placed.Count > 0)
                (x, y) = (placed[^1].X + 0.01, placed[^1].Y + 0.02);
            if (Placement.Nearest(new(x, y), placed, shape) is { } place)
                placed.Add(new(ball, place.X, place.Y));
        }
        var (tip, clock) = (random.NextDouble() * 1.4, random.NextDouble() * 2 * Math.PI);
        var stroke = new JsonObject
        {
            ["aim"] = random.NextDouble() * 360 - 180,
            ["side"] = tip * Math.Cos(clock),
            ["height"] = tip * Math.Sin(clock),
            ["pace"] = 1 + random.NextDouble() * 9,
            ["elevation"] = random.Next(2) * random.NextDouble() * 60,
            ["free"] = random.NextDouble() < 0.2,
        };
        var others = placed.Where(b => b.Ball != Ball.White).Select(b => b.Ball.Id).ToArray();
        if (others.Length > 0 && random.NextDouble() < 0.8)
        {
            stroke["pot"] = new JsonObject
            {
                ["ball"] = Any(random, others),
                ["pocket"] = Any(random, Pockets),
                ["part"] = random.Next(3) - 1,
            };
            if (random.NextDouble() < 0.15)
                stroke["pot"]!["through"] = Any(random, others);
            else if (random.NextDouble() < 0.15)
                stroke["pot"]!["off"] = Any(random, "top", "baulk", "yellow-side", "green-side");
        }
        var conditions = new JsonObject();
        if (random.NextDouble() < 0.3)
            foreach (var field in Conditions.Fields.Where(f => f.Group != "pockets" && random.NextDouble() < 0.3))
                conditions[field.Name] = field.Min + (field.Max - field.Min) * random.NextDouble();
        return new()
        {
            ["balls"] = new JsonArray(
                [
                    .. placed.Select(b =>
                        (JsonNode)
                            new JsonObject
                            {
                                ["id"] = b.Ball.Id,
                                ["x"] = b.X,
                                ["y"] = b.Y,
                            }
                    ),
                ]
            ),
            ["stroke"] = stroke,
            ["conditions"] = conditions,
        };
    }
}
