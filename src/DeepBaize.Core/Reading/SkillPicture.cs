using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Reading;

/// <summary>The shots by which a skill is pictured.</summary>
public enum PicturedShotKind
{
    /// <summary>A red 1.8 m away, straight, 1.8 m on to a corner.</summary>
    LongPot,

    /// <summary>A long red in the open, cut by 20° into a corner near it.</summary>
    OpenRed,

    /// <summary>The half-ball black, the white to run 1.5 m.</summary>
    BlackAndOn,

    /// <summary>A red off the cushion into the middle pocket opposite.</summary>
    Double,
}

/// <summary>A stroke of a picture.</summary>
/// <param name="Ball">
/// The way of the ball, until it is potted, meets a cushion (of a double another one) or stops, m; one place if it was missed.
/// </param>
/// <param name="White">Where the white stops, m; null if it does not stay on the table.</param>
public sealed record DrawnStroke(IReadOnlyList<Vec2> Ball, bool IsPotted, Vec2? White, bool IsMiscue);

/// <summary>Where ten strokes of a player go: of many tens the one that is most like them all.</summary>
/// <param name="Potted">Of all that were played.</param>
public sealed record SkillPicture(PicturedShotKind Kind, StandardShot Shot, IReadOnlyList<DrawnStroke> Strokes, Estimate Potted)
{
    private const int HowMany = 10,
        Tens = 64;

    private static readonly ErrorStream Drawing = ErrorStream.Named("skill picture");

    /// <summary>Returns the pictures of a skill.</summary>
    public static IReadOnlyList<SkillPicture> Of(Skill skill, TableShape shape) =>
        [
            Of(PicturedShotKind.LongPot, StandardShots.Red(shape, 18, 1.8, 1.8, 0, 5), skill, shape),
            Of(PicturedShotKind.OpenRed, StandardShots.OpenRed(shape), skill, shape),
            Of(PicturedShotKind.BlackAndOn, StandardShots.Running(shape, 1.5).Shot, skill, shape),
            Of(PicturedShotKind.Double, StandardShots.Double(shape), skill, shape),
        ];

    private static SkillPicture Of(PicturedShotKind kind, StandardShot shot, Skill skill, TableShape shape)
    {
        var (simulator, record) = (new Simulator(shape), new ShotRecord());
        var player = Player.Default with { Skill = skill };
        var able = skill.Times(Reach.Of(shot.Layout, shot.Stroke, player).ErrorFactor);
        var scatter = Scatter.Of(shot.Layout, shot.Stroke, able, shape, shot.Pot.Pot);
        var cushions = kind == PicturedShotKind.Double ? 1 : 0;
        DrawnStroke Drawn(StandardDraws draws)
        {
            var error = scatter.Error(draws);
            error.Play(simulator, shot.Layout, shot.Stroke, record);
            return new(
                WayOf(record, shot.Layout.Balls[1].At, cushions),
                simulator.PocketOf(1) == shot.Pot.Pocket,
                simulator.IsOnTable(0) ? simulator.At(0) : null,
                error.IsMiscue
            );
        }
        List<List<DrawnStroke>> tens = [.. Enumerable.Range(0, Tens).Select(k => Drawing.Part(k).Set(HowMany).Select(Drawn).ToList())];
        var potted = Sums.Of(tens.SelectMany(t => t).ToList(), s => s.IsPotted ? 1 : 0).Mean;
        var typical = tens.MinBy(ten => Math.Abs(ten.Count(s => s.IsPotted) - HowMany * potted.Value))!;
        return new(kind, shot, typical, potted);
    }

    /// <summary>The way of the ball that is struck, until it meets something beyond so many cushions, is potted or stops.</summary>
    private static List<Vec2> WayOf(ShotRecord record, Vec2 from, int cushions)
    {
        List<Vec2> way = [from];
        foreach (var e in record.Events)
        {
            if (e is not { Ball: 1, Kind: ShotEventKind.Cushion or ShotEventKind.Jaw or ShotEventKind.Pot or ShotEventKind.Stop })
                continue;
            way.Add(e.At);
            if (e.Kind != ShotEventKind.Cushion || way.Count > cushions + 1)
                break;
        }
        return way;
    }
}
