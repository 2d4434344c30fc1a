import { Body, Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Put, Query } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { RecipeInput, RecipesQuery, RecipeView } from '@rakuen/contract/recipes';
import { IfMatch } from '../app/revision.ts';
import { RecipesService } from './recipes.service.ts';

@ApiTags('recipes')
@Controller('recipes')
export class RecipesController {
  constructor(private readonly recipes: RecipesService) {}

  @Get()
  @ApiOkResponse({ type: [RecipeView] })
  list(@Query() { pictureId }: RecipesQuery): Promise<RecipeView[]> {
    return this.recipes.list(pictureId);
  }

  /** Writes a recipe under its name. */
  @Put()
  @ApiOkResponse({ type: RecipeView })
  write(@Body() input: RecipeInput, @IfMatch() from?: number): Promise<RecipeView> {
    return this.recipes.write(input, from);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.recipes.remove(id);
  }
}
