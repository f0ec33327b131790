using System.Text.Json;
using DeepBaize.Core.Players;
using DeepBaize.Data.Answers;
using DeepBaize.Data.Escapes;
using DeepBaize.Data.Frames;
using DeepBaize.Data.Planning;
using DeepBaize.Data.Players;
using DeepBaize.Data.Positions;
using DeepBaize.Data.Shots;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Data;

/// <summary>The database. Tables and columns in snake_case; times with zone.</summary>
public sealed class DeepBaizeContext(DbContextOptions<DeepBaizeContext> options) : DbContext(options)
{
    public DbSet<User> Users => Set<User>();
    public DbSet<Position> Positions => Set<Position>();
    public DbSet<SavedShot> Shots => Set<SavedShot>();
    public DbSet<SavedPlan> Plans => Set<SavedPlan>();
    public DbSet<FrameRecord> Frames => Set<FrameRecord>();
    public DbSet<KeptAnswer> Answers => Set<KeptAnswer>();
    public DbSet<SaveCheck> SaveChecks => Set<SaveCheck>();
    public DbSet<EscapeCorrection> Corrections => Set<EscapeCorrection>();

    /// <summary>How every context connects, here and in the tools.</summary>
    public static void Configure(DbContextOptionsBuilder options, string connection) =>
        options.UseNpgsql(connection).UseSnakeCaseNamingConvention();

    protected override void OnModelCreating(ModelBuilder model)
    {
        model.Entity<User>(user =>
        {
            user.Property(u => u.Name).HasMaxLength(200);
            user.Property(u => u.Hand).HasMaxLength(10).HasDefaultValue("right");
            user.Property(u => u.Height).HasDefaultValue(1.75);
            user.Property(u => u.Skill).HasMaxLength(20).HasDefaultValue("county");
            // An entry is replaced as a whole, never changed.
            user.Property(u => u.OwnSkill)
                .HasColumnType("jsonb")
                .HasConversion(
                    s => JsonSerializer.Serialize(s, JsonSerializerOptions.Web),
                    text => JsonSerializer.Deserialize<SkillEntry>(text, JsonSerializerOptions.Web)
                );
            user.Property(u => u.Version).IsRowVersion();
            user.Property(u => u.SideHabit).HasMaxLength(10).HasDefaultValue("plain");
        });
        model.ApplyConfigurationsFromAssembly(typeof(DeepBaizeContext).Assembly);
    }
}
