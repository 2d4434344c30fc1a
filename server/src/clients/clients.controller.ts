import { Body, Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Post, Put, Query } from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import {
  ClientInput,
  ClientView,
  Delivery,
  MoveInput,
  MovesQuery,
  MoveView,
  OrderInput,
  OrderView,
  PlaceInput,
  PlaceView,
} from '@rakuen/contract/clients';
import { IfMatch } from '../app/revision.ts';
import { ClientsService } from './clients.service.ts';
import { MovesService } from './moves.service.ts';
import { OrdersService } from './orders.service.ts';

@ApiTags('clients')
@Controller()
export class ClientsController {
  constructor(
    private readonly clients: ClientsService,
    private readonly orders: OrdersService,
    private readonly moves: MovesService,
  ) {}

  @Get('clients')
  @ApiOkResponse({ type: [ClientView] })
  list(): Promise<ClientView[]> {
    return this.clients.list();
  }

  @Post('clients')
  @ApiCreatedResponse({ type: ClientView })
  add(@Body() input: ClientInput): Promise<ClientView> {
    return this.clients.add(input);
  }

  @Put('clients/:id')
  @ApiOkResponse({ type: ClientView })
  change(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() input: ClientInput,
    @IfMatch() from?: number,
  ): Promise<ClientView> {
    return this.clients.change(id, input, from);
  }

  @Delete('clients/:id')
  @HttpCode(204)
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.clients.remove(id);
  }

  @Get('places')
  @ApiOkResponse({ type: [PlaceView] })
  places(): Promise<PlaceView[]> {
    return this.clients.listPlaces();
  }

  @Post('places')
  @ApiCreatedResponse({ type: PlaceView })
  addPlace(@Body() input: PlaceInput): Promise<PlaceView> {
    return this.clients.addPlace(input);
  }

  @Put('places/:id')
  @ApiOkResponse({ type: PlaceView })
  changePlace(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() input: PlaceInput,
    @IfMatch() from?: number,
  ): Promise<PlaceView> {
    return this.clients.changePlace(id, input, from);
  }

  @Delete('places/:id')
  @HttpCode(204)
  removePlace(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.clients.removePlace(id);
  }

  @Get('orders')
  @ApiOkResponse({ type: [OrderView] })
  listOrders(): Promise<OrderView[]> {
    return this.orders.list();
  }

  @Post('orders')
  @ApiCreatedResponse({ type: OrderView })
  addOrder(@Body() input: OrderInput): Promise<OrderView> {
    return this.orders.add(input);
  }

  @Get('orders/:id')
  @ApiOkResponse({ type: OrderView })
  order(@Param('id', ParseUUIDPipe) id: string): Promise<OrderView> {
    return this.orders.view(id);
  }

  @Put('orders/:id')
  @ApiOkResponse({ type: OrderView })
  changeOrder(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() input: OrderInput,
    @IfMatch() from?: number,
  ): Promise<OrderView> {
    return this.orders.change(id, input, from);
  }

  @Delete('orders/:id')
  @HttpCode(204)
  removeOrder(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.orders.remove(id);
  }

  /** It went out: its copies in the studio are recorded as sold to the client. */
  @Post('orders/:id/deliver')
  @HttpCode(200)
  @ApiOkResponse({ type: OrderView })
  deliver(@Param('id', ParseUUIDPipe) id: string, @Body() delivery: Delivery): Promise<OrderView> {
    return this.orders.deliver(id, delivery);
  }

  @Post('orders/:id/cancel')
  @HttpCode(200)
  @ApiOkResponse({ type: OrderView })
  cancel(@Param('id', ParseUUIDPipe) id: string): Promise<OrderView> {
    return this.orders.cancel(id);
  }

  @Post('orders/:id/reopen')
  @HttpCode(200)
  @ApiOkResponse({ type: OrderView })
  reopen(@Param('id', ParseUUIDPipe) id: string): Promise<OrderView> {
    return this.orders.reopen(id);
  }

  /** Copies that are out of the studio, or with a client, or at a place. */
  @Get('moves')
  @ApiOkResponse({ type: [MoveView] })
  out(@Query() query: MovesQuery): Promise<MoveView[]> {
    return this.moves.out(query);
  }

  /** Copies of a print, or a number, go somewhere or come back. */
  @Post('moves')
  @ApiCreatedResponse({ type: MoveView })
  move(@Body() input: MoveInput): Promise<MoveView> {
    return this.moves.add(input);
  }

  /** A move that was entered by mistake. */
  @Delete('moves/:id')
  @HttpCode(204)
  removeMove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.moves.remove(id);
  }
}
