using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Tests.Strokes;

/// <summary>The laws of motion know no left and right (model.md): a mirrored stroke ends in the mirrored table.</summary>
public class TableMirrorTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    private static readonly (string Id, Vec2 At)[] Balls =
    [
        ("white", new(1.2, 0.6)),
        ("red-1", new(2.3, 0.9)),
        ("yellow", new(2.7, 0.4)),
        ("blue", new(1.9, 1.3)),
    ];

    [Theory]
    [InlineData(MirrorAxis.Along, 15, 0.7, -0.4, 5.5)]
    [InlineData(MirrorAxis.Along, -20, -0.5, 0.6, 4)]
    [InlineData(MirrorAxis.Across, 15, 0.7, -0.4, 5.5)]
    [InlineData(MirrorAxis.Across, 160, -0.3, 0.2, 6.5)]
    public void A_mirrored_stroke_ends_in_the_mirrored_table(MirrorAxis axis, double aim, double side, double height, double pace)
    {
        var mirror = new TableMirror(axis);
        var plain = Played([.. Balls.Select(b => ((string?)b.Id, b.At.X, b.At.Y))], new(aim, side, height, pace, 3));
        var mirrored = Played(
            [.. Balls.Select(b => (mirror.Ball(b.Id), mirror.Place(b.At).X, mirror.Place(b.At).Y))],
            new(mirror.Degrees(aim), -side, height, pace, 3)
        );
        Assert.NotEqual(Balls[0].At, plain["white"].At);
        foreach (var (id, _) in Balls)
        {
            var (was, now) = (plain[id], mirrored[mirror.Ball(id)!]);
            Assert.Equal(mirror.Name(was.Pocket), now.Pocket);
            Assert.InRange(mirror.Place(was.At).DistanceTo(now.At), 0, 1e-6);
        }
    }

    [Fact]
    public void Names_change_with_the_sides_and_pockets_with_the_ends()
    {
        var (along, across) = (new TableMirror(MirrorAxis.Along), new TableMirror(MirrorAxis.Across));
        Assert.Equal(
            ["green", "yellow-middle", "green-side", "top", "red-3"],
            new[] { "yellow", "green-middle", "yellow-side", "top", "red-3" }.Select(n => along.Name(n)!)
        );
        Assert.Equal(
            ["yellow-top", "green", "green-middle", "baulk", "yellow-side"],
            new[] { "yellow", "green-top", "green-middle", "top", "yellow-side" }.Select(n => across.Name(n)!)
        );
        // With the sides changed yellow and green stand on each other's spots, and with the ends changed every ball keeps its name.
        Assert.Equal(["green", "yellow"], new[] { along.Ball("yellow")!, across.Ball("yellow")! });
        foreach (var mirror in new[] { along, across })
        {
            Assert.InRange(mirror.Place(mirror.Place(new(1.1, 0.3))).DistanceTo(new(1.1, 0.3)), 0, 1e-12);
            foreach (var pocket in Pockets.All)
                Assert.Equal(pocket.Name(), mirror.Name(mirror.Name(pocket.Name())));
        }
        Assert.Equal([-30, 150], new[] { along.Degrees(30), across.Degrees(30) });
    }

    private static Dictionary<string, (Vec2 At, string? Pocket)> Played(IReadOnlyList<(string?, double, double)> balls, Stroke stroke)
    {
        var layout = Layout.Create(balls, Shape);
        var simulator = new Simulator(Shape);
        stroke.Play(simulator, layout);
        return Enumerable
            .Range(0, layout.Balls.Count)
            .ToDictionary(i => layout.Balls[i].Ball.Id, i => (simulator.At(i), simulator.PocketOf(i)?.Name()));
    }
}
