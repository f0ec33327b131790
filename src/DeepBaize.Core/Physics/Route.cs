using DeepBaize.Core.Table;

namespace DeepBaize.Core.Physics;

/// <summary>What the white did after its first contact, as far as it matters: by this, ways differ.</summary>
/// <param name="Cushions">In order.</param>
/// <param name="Balls">Slots of the balls it ran into, in order.</param>
public sealed record Route(IReadOnlyList<Cushion> Cushions, IReadOnlyList<int> Balls)
{
    /// <summary>Gentler than this, a contact is not worth telling; m/s.</summary>
    private const double WorthTelling = 0.02;

    /// <param name="until">Slot of the ball at whose contact the story ends, or −1.</param>
    public static Route Of(ShotRecord record, int until = -1)
    {
        var (cushions, balls, met) = (new List<Cushion>(), new List<int>(), false);
        foreach (var e in record.Events)
        {
            if (e.Ball != 0 && e.Other != 0)
                continue;
            if (e.Kind == ShotEventKind.Ball)
            {
                if (met && e.Speed > WorthTelling)
                    balls.Add(e.Ball + e.Other);
                if (met && e.Ball + e.Other == until)
                    break;
                met = true;
            }
            else if (met && e.Kind == ShotEventKind.Cushion && e.Speed > WorthTelling)
                cushions.Add(Table.Cushions.Nearest(e.At));
        }
        return new(cushions, balls);
    }

    /// <summary>Key that is equal for routes that differ only in what happens after the first ball.</summary>
    public string Key => $"{string.Join('.', Cushions)}/{(Balls.Count > 0 ? Balls[0] : 0)}";
}
