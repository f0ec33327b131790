using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using DeepBaize.Core.Practice;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data.Practice;

/// <summary>
/// What was laid and asked at the time of an attempt: the step as it was then, and the table's conditions. A routine that is changed later
/// does not change it. Attempts that were made alike share a row.
/// </summary>
public sealed class LaidStep
{
    public required Guid OwnerId { get; init; }

    /// <summary>Names its content: the same step on the same table has the same one.</summary>
    public required string Hash { get; init; }

    /// <summary>Layout, stroke and demands; not mirrored.</summary>
    public required Step Step { get; init; }

    /// <summary>What differed from the default conditions, by name; SI units.</summary>
    public required IReadOnlyDictionary<string, double> Conditions { get; init; }

    /// <summary>Returns a row named by its content.</summary>
    public static LaidStep Of(Guid owner, Step step, IReadOnlyDictionary<string, double> conditions)
    {
        SortedDictionary<string, double> sorted = new(conditions.ToDictionary(c => c.Key, c => c.Value), StringComparer.Ordinal);
        var text = JsonSerializer.Serialize(new { step, conditions = sorted }, RoutineRecord.Json);
        return new()
        {
            OwnerId = owner,
            Hash = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(text))),
            Step = step,
            Conditions = sorted,
        };
    }
}

internal sealed class LaidStepConfiguration : IEntityTypeConfiguration<LaidStep>
{
    public void Configure(EntityTypeBuilder<LaidStep> laid)
    {
        laid.HasKey(l => new { l.OwnerId, l.Hash });
        laid.Property(l => l.Hash).HasMaxLength(64);
        laid.Property(l => l.Step).IsJson(RoutineRecord.Json);
        laid.Property(l => l.Conditions).IsJson(RoutineRecord.Json);
        laid.HasOne<User>().WithMany().HasForeignKey(l => l.OwnerId).OnDelete(DeleteBehavior.Cascade);
    }
}
