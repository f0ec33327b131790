using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace DeepBaize.Data.Migrations
{
    /// <inheritdoc />
    public partial class NaturalElevation : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<double>(
                name: "natural_elevation",
                table: "users",
                type: "double precision",
                nullable: false,
                defaultValue: 3.0
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(name: "natural_elevation", table: "users");
        }
    }
}
