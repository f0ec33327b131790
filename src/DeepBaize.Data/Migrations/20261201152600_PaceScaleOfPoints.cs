using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace DeepBaize.Data.Migrations
{
    /// <summary>A player's own scale of paces has points now: what he called five is one of them.</summary>
    public partial class PaceScaleOfPoints : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(name: "pace_scale", table: "players", type: "jsonb", nullable: false, defaultValue: "[]");
            migrationBuilder.Sql(
                """
                UPDATE players
                SET pace_scale = jsonb_build_array(jsonb_build_object('own', 5, 'standard', pace_of_five))
                WHERE pace_of_five <> 5
                """
            );
            migrationBuilder.DropColumn(name: "pace_of_five", table: "players");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<double>(
                name: "pace_of_five",
                table: "players",
                type: "double precision",
                nullable: false,
                defaultValue: 5.0
            );
            // The point that is a five, if there is one: the form before knows no others.
            migrationBuilder.Sql(
                """
                UPDATE players
                SET pace_of_five = (point ->> 'standard')::double precision
                FROM players AS p, jsonb_array_elements(p.pace_scale) AS point
                WHERE players.id = p.id AND (point ->> 'own')::double precision = 5
                """
            );
            migrationBuilder.DropColumn(name: "pace_scale", table: "players");
        }
    }
}
