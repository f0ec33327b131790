using System.Text.Json;
using DeepBaize.Data.Cues;
using DeepBaize.Data.Players;
using DeepBaize.Data.Tables;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data;

/// <summary>Who or what is played with: a player, a table, a cue. One of each is in hand.</summary>
public interface IClubThing : IBinned
{
    string Name { get; set; }
    DateTimeOffset CreatedAt { get; }
}

/// <summary>What knows with whom and what it was played.</summary>
public interface IPlayedWith
{
    Guid? PlayerId { get; set; }
    Guid? TableId { get; set; }
    Guid? CueId { get; set; }
}

/// <summary>What is the same for what is played with.</summary>
public static class ClubThing
{
    public const int MaxName = 80;

    /// <summary>What is the same for all three kinds.</summary>
    internal static void IsClubThing<T>(this EntityTypeBuilder<T> thing)
        where T : class, IClubThing
    {
        thing.Property(t => t.Name).HasMaxLength(MaxName);
        thing.Property(t => t.Version).IsRowVersion();
        thing.HasIndex(t => new { t.OwnerId, t.Name });
        thing.HasOne<User>().WithMany().HasForeignKey(t => t.OwnerId).OnDelete(DeleteBehavior.Cascade);
    }

    /// <summary>A row outlives what it was played with.</summary>
    internal static void KnowsWhatItWasPlayedWith<T>(this EntityTypeBuilder<T> played)
        where T : class, IPlayedWith
    {
        played.HasOne<ClubPlayer>().WithMany().HasForeignKey(p => p.PlayerId).OnDelete(DeleteBehavior.SetNull);
        played.HasOne<ClubTable>().WithMany().HasForeignKey(p => p.TableId).OnDelete(DeleteBehavior.SetNull);
        played.HasOne<ClubCue>().WithMany().HasForeignKey(p => p.CueId).OnDelete(DeleteBehavior.SetNull);
    }

    /// <summary>As jsonb; replaced as a whole, never changed, so the reference tells.</summary>
    internal static PropertyBuilder<T> IsJson<T>(this PropertyBuilder<T> property, JsonSerializerOptions? json = null)
        where T : class
    {
        json ??= JsonSerializerOptions.Web;
        return property
            .HasColumnType("jsonb")
            .HasConversion(
                v => JsonSerializer.Serialize(v, json),
                text => JsonSerializer.Deserialize<T>(text, json)!,
                new ValueComparer<T>((a, b) => ReferenceEquals(a, b), v => v.GetHashCode(), v => v)
            );
    }
}
