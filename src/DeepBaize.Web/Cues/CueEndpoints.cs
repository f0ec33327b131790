using System.ComponentModel;
using DeepBaize.Data;
using DeepBaize.Data.Cues;
using DeepBaize.Web.InHand;
using DeepBaize.Web.Records;

namespace DeepBaize.Web.Cues;

/// <summary>A cue that is played with.</summary>
public record CueEntry
{
    [Description("Up to 80 characters; if it is not said, the name stays.")]
    public string? Name { get; init; }

    [Description("What is on it, in the player's words.")]
    public string Tip { get; init; } = "";

    [Description("cueMass, tipRestitution and endMassRatio, as far as they differ from the defaults.")]
    public IReadOnlyDictionary<string, double> Conditions { get; init; } = new Dictionary<string, double>();

    [Description("As read: a save over a newer one is refused with 409. Not needed for a new one.")]
    public uint Version { get; init; }
}

/// <summary>A cue as stored.</summary>
public sealed record StoredCue : CueEntry
{
    public required Guid Id { get; init; }

    public static StoredCue Of(ClubCue cue) =>
        new()
        {
            Id = cue.Id,
            Name = cue.Name,
            Tip = cue.Tip,
            Conditions = cue.Conditions,
            Version = cue.Version,
        };
}

public static class CueEndpoints
{
    private static readonly ThingKind<ClubCue, CueEntry, StoredCue> Kind = new(
        new("cue", "It may have been put away.", "Look at the newer figures, and save yours over them."),
        "cues",
        now =>
            new()
            {
                OwnerId = User.LocalId,
                Name = "",
                CreatedAt = now,
                UpdatedAt = now,
            },
        (cue, entry) =>
            (cue.Tip, cue.Conditions) = (
                Texts.Checked("tip", entry.Tip, ClubCue.MaxTip, required: false),
                ClubThings.CheckedFigures(entry.Conditions, ofCue: true)
            ),
        StoredCue.Of,
        entry => (entry.Name, entry.Version)
    );

    public static void MapCues(this IEndpointRouteBuilder app) => app.MapThings(Kind);
}
