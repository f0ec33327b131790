using System.ComponentModel;
using DeepBaize.Data;
using DeepBaize.Data.Tables;
using DeepBaize.Web.InHand;

namespace DeepBaize.Web.Tables;

/// <summary>A table that is played on.</summary>
public record ClubTableEntry
{
    [Description("Up to 80 characters; if it is not said, the name stays.")]
    public string? Name { get; init; }

    [Description("What differs from the default conditions, by name; SI units. Nothing of the cue.")]
    public IReadOnlyDictionary<string, double> Conditions { get; init; } = new Dictionary<string, double>();

    [Description("As read: a save over a newer one is refused with 409. Not needed for a new one.")]
    public uint Version { get; init; }
}

/// <summary>A table as stored.</summary>
public sealed record StoredTable : ClubTableEntry
{
    public required Guid Id { get; init; }

    public static StoredTable Of(ClubTable table) =>
        new()
        {
            Id = table.Id,
            Name = table.Name,
            Conditions = table.Conditions,
            Version = table.Version,
        };
}

public static class ClubTableEndpoints
{
    private static readonly ThingKind<ClubTable, ClubTableEntry, StoredTable> Kind = new(
        new("table", "It may have been put away.", "Look at the newer figures, and save yours over them."),
        "tables",
        now =>
            new()
            {
                OwnerId = User.LocalId,
                Name = "",
                CreatedAt = now,
                UpdatedAt = now,
            },
        (table, entry) => table.Conditions = ClubThings.CheckedFigures(entry.Conditions, ofCue: false),
        StoredTable.Of,
        entry => (entry.Name, entry.Version)
    );

    public static void MapClubTables(this IEndpointRouteBuilder app) => app.MapThings(Kind);
}
