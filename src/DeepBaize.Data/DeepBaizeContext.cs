using DeepBaize.Data.Positions;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Data;

/// <summary>The database. Tables and columns in snake_case; times with zone.</summary>
public sealed class DeepBaizeContext(DbContextOptions<DeepBaizeContext> options) : DbContext(options)
{
    public DbSet<User> Users => Set<User>();
    public DbSet<Position> Positions => Set<Position>();

    /// <summary>How every context connects, here and in the tools.</summary>
    public static void Configure(DbContextOptionsBuilder options, string connection) =>
        options.UseNpgsql(connection).UseSnakeCaseNamingConvention();

    protected override void OnModelCreating(ModelBuilder model)
    {
        model.Entity<User>().Property(u => u.Name).HasMaxLength(200);
        model.ApplyConfigurationsFromAssembly(typeof(DeepBaizeContext).Assembly);
    }
}
